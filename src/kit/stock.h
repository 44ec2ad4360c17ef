#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/parts/substitute.h"
#include "core/quantity/quantity.h"

namespace ombrek {

/// A line of the builder's own drawers: like parts that lie together.
struct StockLine {
    std::int64_t id = 0;
    std::string drawer;
    PartKind kind = PartKind::other;
    double value = 0;  ///< SI; 0: described only
    Unit unit = Unit::none;
    double tolerance = 0;  ///< [%]; 0: not known
    double volts = 0;      ///< rated; 0: not known
    double watts = 0;      ///< rated; 0: not known
    std::string what;      ///< description, package, mark
    int count = 0;

    bool operator==(const StockLine&) const = default;
};

/// Parts of a stock line kept back for a build.
struct Promise {
    std::int64_t stock = 0, build = 0;
    std::string ref;
    int count = 1;
};

/// How many of a line are free for a build: those in the drawer less those promised to any other, or to
/// another designator of this one.
int freeFor(const StockLine& line, const std::vector<Promise>& promises, std::int64_t build,
            const std::string& ref = "");

/// The stock as substitutes are looked for, with only what is free for a build.
std::vector<StockPart> freeStock(const std::vector<StockLine>& stock, const std::vector<Promise>& promises,
                                 std::int64_t build, const std::string& ref = "");

/// "4.7 kΩ ±5 %", "100 nF, 50 V", or the description.
std::string describe(const StockLine& line);

/// A value as one types it for a part: a prefix without a unit says what is meant; p, n, µ are farads, k, M,
/// R ohms. Nothing for a plain number or anything else.
std::optional<Quantity> partQuantity(std::string_view text);

/// What is typed to find stock: values, ranges and words, all of which must hold.
///
/// "10n..47n 50V" finds 10 to 47 nF of at least 50 V; "4k7" finds that value; "4k7 1%" at most that
/// tolerance; "npn", "B3" find words of the description or the drawer.
struct StockQuery {
    struct Range {
        double low = 0, high = 0;
        Unit unit = Unit::none;
    };
    std::vector<Range> ranges;
    double volts = 0;                ///< at least
    double tolerance = 0;            ///< at most [%]; 0: any
    std::vector<std::string> words;  ///< lower case
};
/// What is typed into the search: kind, value, words in any order.
StockQuery readQuery(std::string_view text);

/// A stock made ready to be searched as one types: 100,000 lines within a key press.
class StockSearch {
 public:
    explicit StockSearch(const std::vector<StockLine>& stock);
    /// Indices of the lines that fit, in the order of the stock.
    std::vector<std::size_t> find(std::string_view text) const;

 private:
    struct Numbers {
        double value;
        float volts, tolerance;
        Unit unit;
    };
    std::vector<Numbers> numbers_;
    std::vector<std::string> words_;
};

}  // namespace ombrek
