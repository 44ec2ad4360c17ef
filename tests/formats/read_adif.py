"""An ADIF reader of its own, written from the published format (ADIF 3.1, sections ADI and ADX): tags are
<NAME:LENGTH[:TYPE]>, the value is LENGTH characters, records end with <EOR>. Prints records as JSON."""
import json
import re
import sys
import xml.etree.ElementTree as tree

path = sys.argv[1]
records = []
if path.endswith(".adx"):
    for node in tree.parse(path).getroot().find("RECORDS"):
        record = {}
        for field in node:
            name = field.tag
            if name == "APP":
                name = "APP_%s_%s" % (field.get("PROGRAMID"), field.get("FIELDNAME"))
            record[name] = field.text or ""
        records.append(record)
else:
    text = open(path, "rb").read().decode("ascii")  # ADI is ASCII
    at = text.upper().index("<EOH>") + 5
    record = {}
    while True:
        tag = re.compile(r"<([^<>:]+)(?::(\d+)(?::[^>]*)?)?>").search(text, at)
        if not tag:
            break
        at = tag.end()
        if tag.group(1).upper() == "EOR":
            records.append(record)
            record = {}
        else:
            length = int(tag.group(2))
            record[tag.group(1).upper()] = text[at:at + length]
            at += length
    assert not record, "the last record has no end"
json.dump(records, sys.stdout)
