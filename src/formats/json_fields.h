#pragma once

#include <map>
#include <nlohmann/json.hpp>
#include <set>
#include <string>

#include "core/quantity/quantity.h"

namespace ombrek {

/// Thrown inside a JSON reader at the first fault; turned into a Result at the reader's door.
struct JsonFault {
    Problem problem;
};

/// Parse text, turning the library's error into a line and column.
/// @throws JsonFault
nlohmann::json parseJson(const std::string& text);

/// The fields of one JSON object, read by name and type, each fault with its path ("/coils/2/core").
///
/// Every field asked for is remembered; `finish` refuses what nobody asked for, so a misspelt name is told.
/// Names that begin with "x-" are free for remarks.
class JsonFields {
 public:
    JsonFields(const nlohmann::json& object, std::string path);

    /// Whether the field stands there; one that was asked for is known.
    bool has(const std::string& name);
    /// The field's text; a fault at its path when it is missing or none.
    std::string text(const std::string& name);
    /// The same of a field that may be missing.
    std::string text(const std::string& name, const std::string& fallback);
    /// A number within the bounds, else a fault at its path.
    double number(const std::string& name, double low, double high);
    /// The same of a field that may be missing.
    double number(const std::string& name, double low, double high, double fallback);
    /// A whole number within the bounds.
    int whole(const std::string& name, int low, int high);
    /// true or false.
    bool flag(const std::string& name, bool fallback);
    /// A number in SI, or text with a prefix and the expected unit; between low and high.
    double quantity(const std::string& name, Unit unit, double low, double high);
    double quantity(const std::string& name, Unit unit, double low, double high, double fallback);
    std::vector<std::string> texts(const std::string& name);
    /// The array's elements as objects; an absent array is empty.
    std::vector<JsonFields> objects(const std::string& name);
    JsonFields object(const std::string& name);
    /// A field as it stands, for rows that go on as they are.
    const nlohmann::json& raw(const std::string& name) { return need(name); }

    /// A fault for every field that nobody asked for.
    void finish() const;
    [[noreturn]] void fault(const std::string& name, const std::string& sentence) const;
    const std::string& path() const { return path_; }

 private:
    const nlohmann::json* find(const std::string& name);
    const nlohmann::json& need(const std::string& name);

    const nlohmann::json* object_;
    std::string path_;
    std::set<std::string> asked_;
};

}  // namespace ombrek
