#include "desk/act_tips.h"

namespace ombrek {
namespace {

struct Tip {
    const char *page, *act, *says;
};

/// An empty page: the same on every page.
constexpr Tip kTips[] = {
    {"", "back", "Goes back to where you came from. What was done here is kept."},
    {"", "from-the-paper",
     "Opens a page to write down, line by line, what the manual prints for this station."},
    {"", "paste-from-the-paper",
     "Reads what you copied: a value goes where the page wants one, lines of the manual are read and asked "
     "about before anything is taken."},
    {"", "erratum",
     "Notes what the paper has wrong here. It goes into the kit file, for the next builder too."},
    {"", "made-otherwise", "Notes what you made differently here, and why. It stays in your book."},
    {"", "read-the-last-again", "Measures the one before once more; both readings are kept."},
    {"", "paste", "Reads what you copied in the manual, below what stands here already."},
    {"", "open-a-file", "Chooses a file and reads it; nothing is taken before you say so."},
    {"", "leave-it-out", "Leaves this line out. Z takes that back."},

    {"start", "begin-it", "Begins the chosen kit, or goes on with the chosen build where you left it."},
    {"start", "open-a-kit-file", "Chooses a kit file of this computer and begins it."},
    {"start", "a-parts-list",
     "Makes a kit of a parts list: pasted, a table, or lines as a manual prints them."},
    {"start", "restore",
     "Opens a daily copy of this book as a book of its own. The present one stays as it is."},

    {"parts-in", "take-it",
     "Takes the part in hand: asks the meter, or says what is printed on it, whichever tells most."},
    {"parts-in", "read-its-mark", "Type what is printed on the part; Ombrek says what that is."},
    {"parts-in", "not-here", "The part is not in the bag. It goes on the list of what to do about it."},
    {"parts-in", "which-part-is-this", "You hold a part and do not know which: its line is found for it."},
    {"parts-in", "what-to-do", "What is missing, wrong or over, and what can be done about each."},
    {"parts-in", "take-on-trust", "Takes the line without a reading. It counts as trusted, not as measured."},
    {"parts-in", "way-of-working-by-kind",
     "Schools differ: measure by kind into trays, bag by the steps of the plan, or each part just before it "
     "is fitted."},
    {"parts-in", "how-deep-measure-all-the", "How much is measured: every part, only the doubtful, or none."},
    {"parts-in", "its-colour-bands-by-key", "Gives the colour bands, by letter or picked from a row."},

    {"winding", "a-pass", "One more pass of the wire through the core. Kept at once."},
    {"winding", "do-it-and-on", "Does what the line at the top says, and goes on to the next."},
    {"winding", "take-one-back", "One pass less: the wire was taken back."},
    {"winding", "measure-again", "Reads the coil's inductance from the L/C meter once more."},
    {"winding", "will-the-trimmer-reach",
     "Whether the trimmer can tune this coil as it is wound, with odds."},
    {"winding", "count-in-a-picture", "Counts the turns in a photograph of the coil."},
    {"winding", "i-lost-count-what-is", "Count what is on the core again and say it; the count follows."},

    {"board", "done", "The step in hand is done. A hold asks for what it rests on first."},
    {"board", "loupe", "Goes over the joints part by part, or over the sense of diodes and ICs."},
    {"board", "order-of-work",
     "Schools differ: the kit's order, lowest parts first, or by stages that are proved."},
    {"board", "pass-a-hold-knowingly",
     "Goes past a hold without its evidence. Asks for your reason and keeps it."},
    {"board", "this-sitting", "What fits into the time you have, and what it wants laid ready."},
    {"board", "other-side", "Turns the board over: mirrored, as you see it from the solder side."},

    {"first-light", "what-is-wrong",
     "Holds all readings together against every single fault of the kit's circuit, and says where to measure "
     "next."},
    {"first-light", "find-the-fault", "Hands out a rig with one hidden fault, to measure, name and mend."},
    {"first-light", "compare-bands",
     "Holds dead bands against live ones: what do they share that the others do without?"},
    {"first-light", "works-when-squeezed",
     "Takes readings while you press here and there, and says where the jumps come from."},
    {"first-light", "it-is-no-voltage",
     "Dark display, no sound, hum, smoke: what may be behind it, and the test for each."},
    {"symptoms", "it-is-not-that",
     "Its test was made, and it is not that: the next likeliest comes forward."},
    {"symptoms", "it-was-that", "Keeps the repair, and says what must be measured again."},
    {"symptoms", "choose-a-symptom", "Takes another symptom in hand."},
    {"symptoms", "the-symptom-before", "Takes the symptom before in hand."},
    {"symptoms", "choose-a-cause", "Takes another cause in hand; its test is above."},
    {"symptoms", "the-cause-before", "Takes the cause before in hand."},
    {"tune", "louder", "Keeps that it is louder here than where it stood before; no number is wanted."},
    {"tune", "the-same", "Keeps that it sounds the same here as where it stood before."},
    {"tune", "softer", "Keeps that it is softer here than where it stood before."},
    {"compare", "write-one-down",
     "Writes a band or function down: its name, whether it works, the parts it uses."},
    {"compare", "choose-a-band", "Takes another line in hand."},
    {"compare", "the-band-before", "Takes the line before in hand."},
    {"compare", "works-weak-dead", "Turns the line in hand from works to weak to dead."},
    {"compare", "take-it-out", "Takes the line in hand out of the table."},
    {"squeeze", "take-a-reading",
     "Asks the meter once more, where its probes are. Digits typed here are the same."},
    {"squeeze", "press-here", "Marks that you press on the place in hand now."},
    {"squeeze", "a-place", "Names a place to press on: a connector, a relay, a corner of the board."},
    {"squeeze", "choose-a-place", "Takes another place in hand."},
    {"squeeze", "the-place-before", "Takes the place before in hand."},
    {"squeeze", "begin-again", "Forgets readings and presses; the places stay."},
    {"exercise", "measure", "Puts the meter on the point in hand. Every reading counts."},
    {"exercise", "choose-a-point", "Takes another point in hand; it is ringed on the board."},
    {"exercise", "the-point-before", "Takes the point before in hand."},
    {"exercise", "the-next-state", "Has the rig do something else: first power, receiving, key down."},
    {"exercise", "the-state-before", "Has the rig do what it did before."},
    {"exercise", "name-it",
     "Names the part that is wrong, and swaps it for a good one. A wrong swap counts."},
    {"exercise", "a-hint", "Says where the next reading would tell most."},
    {"exercise", "an-easy-rig", "Hands out a rig: one part with two leads is open, short or turned round."},
    {"exercise", "a-harder-rig", "Hands out a rig: transistors and ICs may be wrong, too."},
    {"exercise", "the-hardest-rig", "Hands out a rig: values may be wrong, too."},
    {"exercise", "by-its-number",
     "Hands out the rig of a number: everybody who types it has the same fault."},
    {"suspects", "read-it", "Asks the meter at the point above. Digits typed here are the same reading."},
    {"suspects", "choose-a-suspect",
     "Takes another suspect in hand, to see which readings speak for and against it."},
    {"suspects", "the-suspect-before", "Takes the suspect before in hand."},
    {"suspects", "it-is-mended",
     "Writes down that the suspect in hand was mended. What was read before tells of another rig from then "
     "on."},
    {"suspects", "attach-a-circuit",
     "Chooses the kit's circuit, a SPICE netlist whose element names are the designators."},
    {"first-light", "take-it", "Asks the meter for the check in hand, or confirms what is seen or heard."},
    {"first-light", "simple-or-guarded-verdict",
     "Simple: the value decides. Guarded: the meter's error counts against a pass."},
    {"tune", "read-it-here-or-go",
     "Reads the meter where the adjuster stands now, or goes on when it is settled."},
    {"tune", "it-is-turned-the-mark",
     "You turned the adjuster; the mark follows so that a reading has its place."},
    {"proof", "take-it", "Asks the instrument for the quantity in hand. The rig must be on its dummy load."},
    {"proof", "way-of-measuring", "By scope, diode probe, wattmeter or analyser; each with its own error."},
    {"proof", "other-limits", "Which rules the harmonics are held against. Your own licence decides."},
    {"sign-off", "go-and-earn-it-or", "Goes to the station where this gate is earned, or confirms it here."},
    {"sign-off", "pass-knowingly",
     "Passes a gate that is not earned. Asks for your reason; the report shows it."},

    {"window", "undo",
     "Takes the last action back. Everything in the book can be taken back, also tomorrow."},
    {"window", "redo", "Does again what was taken back."},
    {"window", "find", "One field over everything: parts, coils, checks, steps, settings, pages and acts."},
    {"window", "sums", "Works out a mark, a value or a formula; Enter puts the answer on the page."},
    {"window", "instruments", "Shows who answers on the bench, beside the page."},
    {"window", "practice-bench",
     "Starts four simulated instruments on the practice kit, to try everything without a rig."},
    {"window", "save-a-copy", "Writes the whole book to a second file. Work goes on in this one."},
    {"window", "copy", "Copies the row in hand, or what the page says, as text."},
    {"window", "paste", "Takes what was copied to where it belongs: a value, a list, a table, a file."},
    {"window", "print",
     "Shows the sheet of this page before it is printed: labels, cut list, build sheet, report."},
    {"window", "words", "What the trade's words on this page mean."},
};

}  // namespace

QString actTip(const QString& page, const QString& act) {
    for (const Tip& tip : kTips) {
        if ((*tip.page == '\0' || page == QLatin1String(tip.page)) && act == QLatin1String(tip.act))
            return QString::fromUtf8(tip.says);
    }
    return {};
}

}  // namespace ombrek
