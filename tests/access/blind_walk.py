#!/usr/bin/python3
"""A blind walk through Parts in and Winding, by what a screen reader is told over AT-SPI.

Usage: blind_walk.py OMBREK OMBREK-CLI, in a session bus and under an X server.
The client is Debian's python3-pyatspi; it shares nothing with the program but the bus.
"""

import os
import subprocess
import sys
import tempfile
import time

import pyatspi

PROGRAM, CLI = sys.argv[1:3]
failures = []


def check(what, good):
    print(("ok   " if good else "FAIL ") + what)
    if not good:
        failures.append(what)


def wait_for(find, seconds=30):
    end = time.time() + seconds
    while time.time() < end:
        found = find()
        if found:
            return found
        time.sleep(0.2)
    return None


def application():
    desktop = pyatspi.Registry.getDesktop(0)
    for app in desktop:
        if app is not None and app.name.lower() == "ombrek":
            return app
    return None


def everything(node, depth=0):
    """All that is shown, from the top down."""
    yield node
    if depth > 25:
        return
    for i in range(node.childCount):
        try:
            child = node.getChildAtIndex(i)
        except Exception:  # it went while it was looked at
            continue
        if child is not None:
            yield from everything(child, depth + 1)


def shown(node):
    states = node.getState()
    return states.contains(pyatspi.STATE_VISIBLE) and states.contains(pyatspi.STATE_SHOWING)


def names(app):
    out = []
    for node in everything(app):
        try:
            if node.name and shown(node):
                out.append(node.name)
        except Exception:
            continue
    return out


def heard(app, words):
    return any(words in name for name in names(app))


def do(app, name):
    """Press the button of this name, as a screen reader's user does."""
    for node in everything(app):
        try:
            if node.getRole() == pyatspi.ROLE_PUSH_BUTTON and node.name == name and shown(node):
                node.queryAction().doAction(0)
                time.sleep(0.4)
                return True
        except Exception:
            continue
    return False


with tempfile.TemporaryDirectory() as folder:
    book = os.path.join(folder, "walk.ombrek")
    subprocess.run([CLI, "practice", book], check=True, stdout=subprocess.DEVNULL)
    environment = dict(os.environ, HOME=folder, XDG_CONFIG_HOME=folder, QT_LINUX_ACCESSIBILITY_ALWAYS_ON="1", QT_QPA_PLATFORM="xcb")
    program = subprocess.Popen([PROGRAM, book], env=environment)
    try:
        app = wait_for(application)
        check("the program is on the bus", app is not None)
        if app is None:
            sys.exit(1)
        check("its page has a name", wait_for(lambda: heard(app, "Parts in")) is not None)
        check("the part to take is named, with its value", heard(app, "C74"))
        check("the line that says what to do is there", heard(app, "Measure C74"))
        unnamed = [n for n in everything(app) if shown(n) and n.getRole() == pyatspi.ROLE_PUSH_BUTTON and not n.name]
        check("no button is without a name", not unnamed)
        described = [
            n
            for n in everything(app)
            if shown(n) and n.getRole() == pyatspi.ROLE_PUSH_BUTTON and "Key:" in (n.description or "")
        ]
        check("caps say their key (%d)" % len(described), len(described) >= 5)
        check("the menu is told", any(n.getRole() == pyatspi.ROLE_MENU_BAR for n in everything(app)))

        # The next line, by its cap.
        before = [n for n in names(app) if n.startswith("Measure ")]
        check("a cap can be pressed", do(app, "Choose a line"))
        after = wait_for(lambda: [n for n in names(app) if n.startswith("Measure ")] != before)
        check("and the part in hand is another", after is not None)

        # To the second station by the menu.
        went = False
        for node in everything(app):
            if node.getRole() == pyatspi.ROLE_MENU_ITEM and node.name == "Winding":
                node.queryAction().doAction(0)
                went = True
                break
        check("Winding is in the menu", went)
        check("the count is told", wait_for(lambda: heard(app, "7 of 12 turns on L2")) is not None)
        check("a pass is counted", do(app, "A pass"))
        check("and told", wait_for(lambda: heard(app, "8 of 12 turns on L2")) is not None)
        check("one can be taken back", do(app, "Take one back"))
        check("and that is told", wait_for(lambda: heard(app, "7 of 12 turns on L2")) is not None)
        check(
            "the page can have the focus",
            any(n.getState().contains(pyatspi.STATE_FOCUSABLE) for n in everything(app) if n.name == "Winding"),
        )
    finally:
        program.terminate()
        program.wait(10)

sys.exit(1 if failures else 0)
