#include <catch2/catch.hpp>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>

#include "formats/files.h"
#include "formats/kit_edit.h"
#include "formats/kit_json.h"
#include "formats/kit_upgrade.h"
#include "formats/kit_variants.h"
#include "formats/tables.h"
#include "lists/parts_list.h"
#include "station/rebuild.h"

using namespace ombrek;
namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

// The published schema (docs/formats/kit.schema.json) as Python's jsonschema package reads it, against the
// kits that Ombrek ships and writes, and against files that its own reader refuses.

namespace {

const fs::path kData = OMBREK_DATA_FOLDER;

/// A folder of its own: tests run beside each other.
struct Folder {
    fs::path path;
    Folder() {
        std::string name = (fs::temp_directory_path() / "ombrek-schema-XXXXXX").string();
        REQUIRE(mkdtemp(name.data()) != nullptr);
        path = name;
    }
    ~Folder() { fs::remove_all(path); }
};

/// Names of the files that the schema does not let pass.
std::vector<std::string> refused(const fs::path& folder) {
    std::ofstream(folder / "check.py") << "import glob,json,os,sys,jsonschema\n"
                                          "s=json.load(open(sys.argv[1]))\n"
                                          "jsonschema.Draft202012Validator.check_schema(s)\n"
                                          "v=jsonschema.Draft202012Validator(s)\n"
                                          "o=open(sys.argv[2]+'/refused','w')\n"
                                          "for f in sorted(glob.glob(sys.argv[2]+'/*.json')):\n"
                                          "    for e in v.iter_errors(json.load(open(f))):\n"
                                          "        o.write(os.path.basename(f)+'\\n'); break\n";
    const std::string command = "/usr/bin/python3 '" + (folder / "check.py").string() + "' '" +
                                (fs::path(OMBREK_DOCS) / "formats" / "kit.schema.json").string() + "' '" +
                                folder.string() + "'";
    INFO("python3-jsonschema must be installed");
    REQUIRE(std::system(command.c_str()) == 0);
    std::vector<std::string> out;
    std::ifstream file(folder / "refused");
    for (std::string name; std::getline(file, name);) out.push_back(name);
    return out;
}

}  // namespace

TEST_CASE("every kit that Ombrek ships or writes is as the published schema says", "[reference]") {
    const auto tables = readTables(OMBREK_DATA_FOLDER);
    REQUIRE(tables);
    Folder folder;
    int written = 0;
    const auto write = [&](const std::string& name, const std::string& text) {
        std::ofstream(folder.path / (name + ".json")) << text;
        ++written;
    };
    for (const auto& entry : fs::directory_iterator(kData / "demo")) {
        if (entry.path().string().ends_with(".kit.json"))
            write(entry.path().stem().string(), *readFile(entry.path(), 1000000));
    }
    for (const auto& entry : fs::directory_iterator(fs::path(OMBREK_LISTS) / "corpus")) {
        if (entry.path().extension() == ".json") continue;
        const auto bytes = readFile(entry.path(), 1000000);
        const auto list = readPartsList(*bytes);
        if (list)
            write("list-" + entry.path().filename().string(), kitFromList(list->list, "L", tables->cores));
    }
    const auto demo = readKitFile(kData / "demo" / "lantern-15.kit.json", tables->cores);
    REQUIRE(demo);
    const auto up =
        withUpgrade(demo->text, *readFile(kData / "demo" / "lantern-15.upgrade.json", 100000), tables->cores);
    write("upgraded", up->text);
    const auto rebuilt = rebuild(demo->kit, {14e6, 14.35e6}, tables->cores);
    write("band", *withNewVariant(demo->text, "as supplied", {"14 MHz", withBand(demo->text, *rebuilt)},
                                  tables->cores));
    Check seen, diode;
    seen.id = "lamp", seen.title = "lamp", seen.seen = "the lamp lights", seen.unit = Unit::none;
    diode.id = "d1", diode.title = "D1", diode.at = "D1", diode.diode = true, diode.limits = {0.5, 0.8};
    write("checks", withChecks(demo->text, {seen, diode}));
    CHECK(written > 40);
    const auto bad = refused(folder.path);
    INFO((bad.empty() ? "" : bad.front()));
    CHECK(bad.empty());
}

TEST_CASE("what the reader refuses in a kit's form, the schema refuses too", "[reference]") {
    const auto tables = readTables(OMBREK_DATA_FOLDER);
    const auto demo = readFile(kData / "demo" / "breakwater.kit.json", 1000000);
    REQUIRE(demo);
    struct Fault {
        const char *name, *pointer;
        Json value;  ///< null: taken out
    };
    const std::vector<Fault> faults{{"format", "/format", "other"},
                                    {"version", "/version", 2},
                                    {"id", "/id", "../up"},
                                    {"no-name", "/name", nullptr},
                                    {"no-parts", "/parts", Json::array()},
                                    {"kind", "/parts/0/kind", "widget"},
                                    {"ref", "/parts/0/ref", ""},
                                    {"misspelt", "/colour", "red"},
                                    {"part-misspelt", "/parts/0/colour", "red"},
                                    {"board", "/board", {{"width_mm", 2}, {"height_mm", 50}}},
                                    {"step-minutes", "/steps/0/minutes", -1},
                                    {"step-no-do", "/steps/0/do", nullptr},
                                    {"variants", "/variants", Json::array({{{"name", "a"}}})}};
    Folder folder;
    for (const Fault& fault : faults) {
        Json kit = Json::parse(*demo);
        const Json::json_pointer at(fault.pointer);
        if (fault.value.is_null()) {
            kit[at.parent_pointer()].erase(at.back());
        } else {
            kit[at] = fault.value;
        }
        INFO(fault.name);
        CHECK_FALSE(readKit(kit.dump(), tables->cores));
        std::ofstream(folder.path / (std::string(fault.name) + ".json")) << kit.dump();
    }
    CHECK(refused(folder.path).size() == faults.size());
}
