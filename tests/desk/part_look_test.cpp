#include "desk/pieces/part_look.h"

#include <catch2/catch.hpp>

#include "station/board/loupe.h"

using namespace ombrek;

// Parts as a pasted list gives them: nothing but designator, value and what it says of them.

namespace {

Part listed(const char* ref, PartKind kind, const char* value, const char* what = "", double nominal = 0) {
    Part out;
    out.ref = ref;
    out.kind = kind;
    out.value = value;
    out.what = what;
    out.nominal = nominal;
    return out;
}

}  // namespace

TEST_CASE("a part of a list is drawn with the body and the polarity that it has") {
    using Body = PartLook::Body;
    struct Row {
        Part part;
        Body body;
        bool polarised;
    };
    const Row rows[] = {
        {listed("C5", PartKind::capacitor, "100u", "", 100e-6), Body::electrolytic, true},
        {listed("C6", PartKind::capacitor, "10u 25V electrolytic", "", 10e-6), Body::electrolytic, true},
        {listed("C7", PartKind::capacitor, "4u7 tantalum", "", 4.7e-6), Body::electrolytic, true},
        {listed("C8", PartKind::capacitor, "100n", "", 100e-9), Body::byKind, false},
        {listed("C9", PartKind::capacitor, "1u film", "", 1e-6), Body::byKind, false},
        {listed("LED1", PartKind::diode, "red"), Body::led, true},
        {listed("D7", PartKind::diode, "LED green 3 mm"), Body::led, true},
        {listed("D1", PartKind::diode, "1N4148"), Body::byKind, true},
        {listed("U2", PartKind::ic, "78L05"), Body::flat, true},
        {listed("U3", PartKind::ic, "LM78L08ACZ"), Body::flat, true},
        {listed("U4", PartKind::ic, "7805 regulator"), Body::tab, true},
        {listed("U5", PartKind::ic, "LM386N"), Body::chip, true},
        {listed("Q1", PartKind::transistor, "2N3904"), Body::flat, true},
        {listed("Q7", PartKind::transistor, "N-MOSFET final", "TO-220, on the heat sink"), Body::tab, true},
        {listed("T1", PartKind::coil, "BN43-2402"), Body::twoHoles, false},
        {listed("T2", PartKind::coil, "FT37-43"), Body::byKind, false},
    };
    for (const Row& row : rows) {
        INFO(row.part.ref << " " << row.part.value);
        const PartLook look = partLookOf(row.part);
        CHECK(int(look.body) == int(row.body));
        CHECK(look.orientation.isEmpty() != row.polarised);
        // What the drawing shows is what the sanity pass asks for.
        CHECK(look.orientation.toStdString() == senseOf(row.part));
    }
}
