#!/usr/bin/python3
"""Whether the counter's voice says "ten" when the tenth pass is counted, by a real engine into a file.

Usage: says_ten.py PROGRAM [ARGUMENT...]: a program that counts a tenth pass with the voice on, and stays a while.
A speech-dispatcher of our own speaks with espeak-ng into a sound file (ALSA's file plugin). What it was given to say
stands in its log; that it was said is heard in the file.
"""

import os
import re
import subprocess
import sys
import tempfile
import time
from array import array

RATE = 22050  # of espeak-ng [samples a second]

with tempfile.TemporaryDirectory() as folder:
    sound = os.path.join(folder, "said.wav")
    for name in ("conf/modules", "log", "run"):
        os.makedirs(os.path.join(folder, name), mode=0o700)

    def write(name, text):
        with open(os.path.join(folder, name), "w") as file:
            file.write(text)

    write("alsa.conf", "</usr/share/alsa/alsa.conf>\npcm.tofile { type file slave.pcm null file %s format wav }\n" % sound)
    write(
        "conf/speechd.conf",
        'AudioOutputMethod "alsa"\nAudioALSADevice "tofile"\nLogLevel 5\nLogDir "%s/log"\n'
        'AddModule "espeak-ng" "sd_espeak-ng" "espeak-ng.conf"\nDefaultModule espeak-ng\nDefaultLanguage "en"\n' % folder,
    )
    with open("/etc/speech-dispatcher/modules/espeak-ng.conf") as file:
        write("conf/modules/espeak-ng.conf", file.read())
    socket = os.path.join(folder, "run", "speech.sock")
    environment = dict(
        os.environ,
        ALSA_CONFIG_PATH=os.path.join(folder, "alsa.conf"),
        XDG_RUNTIME_DIR=os.path.join(folder, "run"),
        SPEECHD_ADDRESS="unix_socket:" + socket,
        QT_QPA_PLATFORM="offscreen",
        LC_ALL="C.UTF-8",
        # Under the address sanitizer: its strstr reads to the end each time, for minutes over the engine's 17,000 voices;
        # and the engine's library loses 418 bytes of its own.
        ASAN_OPTIONS="intercept_strstr=0:detect_leaks=0",
    )
    environment.pop("LOCPATH", None)
    dispatcher = subprocess.Popen(
        ["speech-dispatcher", "-s", "-t", "0", "-l", "5", "-C", os.path.join(folder, "conf"), "-L", os.path.join(folder, "log"),
         "-c", "unix_socket", "-S", socket, "-P", os.path.join(folder, "run", "pid")],
        env=environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    try:
        for _ in range(300):
            if os.path.exists(socket):
                break
            time.sleep(0.1)
        done = subprocess.run(sys.argv[1:], env=environment, stdout=subprocess.DEVNULL, timeout=300)
        time.sleep(1)
        with open(os.path.join(folder, "log", "speech-dispatcher.log"), errors="replace") as file:
            said = re.findall(r"Queueing message \|(.*)\| with", file.read())
        if not os.path.exists(sound):
            sys.exit("nothing was said")
        with open(sound, "rb") as file:
            samples = array("h", file.read()[44:][: (os.path.getsize(sound) - 44) // 2 * 2])
        limit = max((abs(s) for s in samples), default=0) // 20
        heard = sum(1 for s in samples if abs(s) > max(limit, 100)) / RATE
        print("exit %d, said %s, %.2f s of it heard" % (done.returncode, said, heard))
        # A word of one syllable is loud for a tenth of a second and more, and no sentence long.
        if done.returncode != 0 or said != ["ten"] or not 0.08 < heard < 1.0:
            sys.exit("this was not \"ten\", once")
    finally:
        dispatcher.terminate()
        dispatcher.wait(5)
