#include <numeric>

#include "lists/packing_list.h"

#include <catch2/catch.hpp>

using namespace ombrek;

// Packing lists of many hands; the second half was written when the reader was done. Every one is made up.

namespace {

struct Sheet {
    const char* text;
    int lines, shipped;
    const char* first;  ///< code or description of the first line
};

const Sheet kFirst[] = {
    {"Item,Qty Ord,Qty Shp,B/O\nMetal film 10k,4,4,0\nCeramic 100n,10,8,2\n", 2, 12, "Metal film 10k"},
    {"Artikelnr;Bezeichnung;Bestellt;Geliefert\n4711;Widerstand 10k;4;4\n4712;Kondensator 100n;10;10\n", 2,
     14, "4711"},
    {"R\u00e9f\u00e9rence;D\u00e9signation;Command\u00e9;Livr\u00e9;Reliquat\nA-1;R\u00e9sistance "
     "4k7;2;2;0\nA-2;Tore;3;1;2\n",
     2, 3, "A-1"},
    {"Packing slip 12\n\nCode      Description          Ordered  Shipped\nQ-17      Resistor 10 kOhm         "
     "  2        2\n"
     "Q-18      Capacitor 22 pF            5        3\n",
     2, 5, "Q-17"},
    {"C\u00f3digo;Descripci\u00f3n;Cantidad;Entregado\nX1;Cristal 7,030 MHz;1;1\n", 1, 1, "X1"},
    {"Codice;Descrizione;Quantit\u00e0;Consegnato\nT1;Trimmer 30 pF;2;2\n", 1, 2, "T1"},
};
const Sheet kSecond[] = {
    {"Pos  Artikel                    Menge  geliefert\n1    Ferritring               2      2\n2    "
     "Kupferlackdraht 0,5 mm   1      0\n",
     2, 2, "Ferritring"},
    {"SHIPPED\tPART NO\tDESCRIPTION\n2 pcs\tK-9\tRelay 5 V\n10 pcs\tK-10\tDiode\n", 2, 12, "K-9"},
    {"Aantal besteld,Aantal geleverd,Omschrijving\n5,5,Weerstand 1k\n", 1, 5, "Weerstand 1k"},
    {"Ben\u00e4mning;Best\u00e4lld;Levererat\nTransistor;4;4\nIC;1;0\n", 2, 4, "Transistor"},
    {"Kod;Opis;Zam\u00f3wiono;Wys\u0142ano\nC-1;Kondensator;6;6\n", 1, 6, "C-1"},
    {"Your order 99\nQty      Dispatched   Item\n3        3            BNC socket\n1        1            "
     "Heat sink\n",
     2, 4, "BNC socket"},
};

void check(const Sheet& sheet) {
    INFO(sheet.text);
    const auto read = readPackingList(sheet.text);
    REQUIRE(read);
    CHECK(int(read->size()) == sheet.lines);
    CHECK(std::accumulate(read->begin(), read->end(), 0,
                          [](int sum, const PackingLine& l) { return sum + l.shipped; }) == sheet.shipped);
    const PackingLine& first = read->front();
    CHECK((first.code.empty() ? first.description : first.code) == sheet.first);
}

}  // namespace

TEST_CASE("packing lists of several countries and shapes are read: the first half") {
    for (const Sheet& sheet : kFirst) check(sheet);
}
TEST_CASE("packing lists of several countries and shapes are read: the second half") {
    for (const Sheet& sheet : kSecond) check(sheet);
}
TEST_CASE("a parts list is no packing list") {
    for (const char* list : {"Ref,Value,Qty\nR1,10k,1\n", "Menge;Bezeichnung;Wert\n2;R1 R2;10k\n",
                             "Designation,Article,Quantity\nR1,10k,1\n"}) {
        INFO(list);
        CHECK_FALSE(readPackingList(list));
    }
}
