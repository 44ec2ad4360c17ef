#include "core/sums/arithmetic.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace ombrek::sums {
namespace {

using Values = std::vector<Meaning>;

struct Product {
    Kind a, b, c;
};
constexpr Product kProducts[] = {{Kind::volt, Kind::ampere, Kind::watt},
                                 {Kind::ampere, Kind::ohm, Kind::volt},
                                 {Kind::ohm, Kind::farad, Kind::second},
                                 {Kind::hertz, Kind::second, Kind::number}};

std::optional<Meaning> times(Meaning a, Meaning b) {
    if (a.kind == Kind::number) return Meaning{b.kind, a.value * b.value};
    if (b.kind == Kind::number) return Meaning{a.kind, a.value * b.value};
    if (a.kind == Kind::percent) return Meaning{b.kind, a.value / 100 * b.value};
    for (const Product& p : kProducts) {
        if ((a.kind == p.a && b.kind == p.b) || (a.kind == p.b && b.kind == p.a))
            return Meaning{p.c, a.value * b.value};
    }
    return std::nullopt;
}

std::optional<Meaning> over(Meaning a, Meaning b) {
    if (b.value == 0) return std::nullopt;
    if (a.kind == b.kind) return Meaning{Kind::number, a.value / b.value};
    if (b.kind == Kind::number) return Meaning{a.kind, a.value / b.value};
    for (const Product& p : kProducts) {
        if (a.kind == p.c && b.kind == p.a) return Meaning{p.b, a.value / b.value};
        if (a.kind == p.c && b.kind == p.b) return Meaning{p.a, a.value / b.value};
    }
    return std::nullopt;
}

/// Levels, temperatures and the like do not add.
bool adds(Kind kind) {
    constexpr Kind kNone[] = {Kind::dbm,   Kind::dbuv,  Kind::celsius, Kind::fahrenheit,
                              Kind::gauge, Kind::sUnit, Kind::ratio};
    return std::find(std::begin(kNone), std::end(kNone), kind) == std::end(kNone);
}

std::optional<Meaning> plus(Meaning a, Meaning b, int sign) {
    if (a.kind == b.kind && sign < 0 && (a.kind == Kind::dbm || a.kind == Kind::dbuv))
        return Meaning{Kind::decibel, a.value - b.value};
    if (a.kind == b.kind)
        return adds(a.kind) ? std::optional(Meaning{a.kind, a.value + sign * b.value}) : std::nullopt;
    if (b.kind != Kind::decibel) return std::nullopt;
    const double db = sign * b.value;
    switch (a.kind) {
        case Kind::dbm:
        case Kind::dbuv:
            return Meaning{a.kind, a.value + db};
        case Kind::watt:
            return Meaning{a.kind, a.value * std::pow(10, db / 10)};
        case Kind::volt:
        case Kind::voltRms:
        case Kind::voltPeak:
        case Kind::voltPeakToPeak:
            return Meaning{a.kind, a.value * std::pow(10, db / 20)};
        default:
            return std::nullopt;
    }
}

/// Beside each other where `parallel`, else one behind the other.
std::optional<Meaning> joined(Meaning a, Meaning b, bool parallel) {
    if (a.kind != b.kind) return std::nullopt;
    if (a.kind != Kind::ohm && a.kind != Kind::farad && a.kind != Kind::henry) return std::nullopt;
    if (parallel == (a.kind == Kind::farad)) return Meaning{a.kind, a.value + b.value};
    if (!(a.value > 0) || !(b.value > 0)) return std::nullopt;
    return Meaning{a.kind, a.value * b.value / (a.value + b.value)};
}

std::optional<Meaning> applied(const std::string& sign, Meaning a, Meaning b) {
    if (sign == "+" || sign == "plus") return plus(a, b, 1);
    if (sign == "-" || sign == "minus") return plus(a, b, -1);
    if (sign == "*" || sign == "times" || sign == "of") return times(a, b);
    if (sign == "/" || sign == "\u00f7") return over(a, b);
    return joined(a, b, sign != "series");
}

/// Every pair that goes together, the likeliest first.
Values each(const std::string& sign, const Values& left, const Values& right) {
    Values out;
    for (std::size_t rank = 0; rank < left.size() + right.size(); ++rank) {
        for (std::size_t i = 0; i <= rank && i < left.size(); ++i) {
            if (rank - i >= right.size()) continue;
            const auto one = applied(sign, left[i], right[rank - i]);
            if (one && std::isfinite(one->value)) out.push_back(*one);
        }
    }
    if (out.size() > 4) out.resize(4);
    return out;
}

constexpr std::string_view kLoose[] = {"+", "-", "plus", "minus"};
constexpr std::string_view kTight[] = {"*", "/", "\u00f7", "times", "of"};
constexpr std::string_view kTightest[] = {"||", "//", "parallel", "series"};

template <std::size_t n>
bool among(const std::string& text, const std::string_view (&signs)[n]) {
    return std::find(std::begin(signs), std::end(signs), text) != std::end(signs);
}

class Reader {
 public:
    explicit Reader(const std::vector<Piece>& pieces) : pieces_(pieces) {}

    Values whole() {
        Values out = sum();
        return at_ == pieces_.size() ? out : Values();
    }

 private:
    Values sum() {
        return chain(kLoose, [this] { return product(); });
    }
    Values product() {
        return chain(kTight, [this] { return pair(); });
    }
    Values pair() {
        return chain(kTightest, [this] { return one(); });
    }

    template <std::size_t n, typename Next>
    Values chain(const std::string_view (&signs)[n], const Next& next) {
        Values out = next();
        while (at_ < pieces_.size() && pieces_[at_].what != Piece::What::figure &&
               among(pieces_[at_].text, signs)) {
            const std::string sign = pieces_[at_++].text;
            out = each(sign, out, next());
        }
        return out;
    }

    Values one() {
        constexpr int kDeepest = 30;
        if (at_ >= pieces_.size() || depth_ > kDeepest) return {};
        const Piece& piece = pieces_[at_];
        if (piece.what == Piece::What::figure) {
            ++at_;
            return piece.figure.meanings;
        }
        if (piece.text != "(") return {};
        ++at_;
        ++depth_;
        Values inside = sum();
        --depth_;
        if (at_ >= pieces_.size() || pieces_[at_].text != ")") return {};
        ++at_;
        return inside;
    }

    const std::vector<Piece>& pieces_;
    std::size_t at_ = 0;
    int depth_ = 0;
};

/// "100n and 10n in parallel", "parallel 10k 4k7 1k": all its figures, joined.
Values listed(const Sentence& sentence) {
    std::string how;
    Values out;
    for (const Piece& piece : sentence.pieces) {
        if (piece.what == Piece::What::figure) {
            out = out.empty() ? piece.figure.meanings
                              : each(how.empty() ? "parallel" : how, out, piece.figure.meanings);
            if (out.empty()) return {};
        } else if (piece.text == "parallel" || piece.text == "series") {
            if (!how.empty()) return {};
            how = piece.text;
        } else if (piece.text != "and" && piece.text != "with" && piece.text != "of") {
            return {};
        }
    }
    return out;
}

}  // namespace

std::vector<Meaning> reckoned(const Sentence& sentence) {
    int figures = 0;
    std::string how;
    for (const Piece& piece : sentence.pieces) {
        figures += piece.what == Piece::What::figure;
        if (piece.text == "parallel" || piece.text == "series") how = piece.text;
    }
    if (figures < 2) return {};
    Values out = Reader(sentence.pieces).whole();
    if (!out.empty() || how.empty()) return out;
    // The word may stand behind or before them all: it is put between each two.
    Sentence turned;
    turned.pieces.push_back({Piece::What::word, {}, how});
    bool once = false;
    for (const Piece& piece : sentence.pieces) {
        if (piece.text == how && !once) {
            once = true;
        } else {
            turned.pieces.push_back(piece);
        }
    }
    return listed(turned);
}

}  // namespace ombrek::sums
