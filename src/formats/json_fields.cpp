#include "formats/json_fields.h"

#include <algorithm>
#include <cmath>

namespace ombrek {

nlohmann::json parseJson(const std::string& text) {
    try {
        return nlohmann::json::parse(text);
    } catch (const nlohmann::json::parse_error& error) {
        const std::size_t at = std::min(error.byte > 0 ? error.byte - 1 : 0, text.size());
        const auto line = std::count(text.begin(), text.begin() + std::ptrdiff_t(at), '\n') + 1;
        const auto start = text.rfind('\n', at == 0 ? 0 : at - 1);
        const auto column = at - (start == std::string::npos || at == 0 ? 0 : start + 1) + 1;
        throw JsonFault{{"line " + std::to_string(line) + ", column " + std::to_string(column),
                         "This is not well-formed JSON; look for a missing comma, quote or bracket."}};
    } catch (const nlohmann::json::out_of_range& error) {
        // "number overflow parsing '1e999'" ends with the number.
        const std::string said = error.what();
        const auto quote = said.find('\'');
        throw JsonFault{
            {"", "A number in this file is too large to be read" +
                     (quote == std::string::npos ? std::string() : ": " + said.substr(quote, 40)) + "."}};
    }
}

JsonFields::JsonFields(const nlohmann::json& object, std::string path)
    : object_(&object), path_(std::move(path)) {
    if (!object.is_object())
        throw JsonFault{{path_.empty() ? "/" : path_, "An object in braces is wanted here."}};
}

void JsonFields::fault(const std::string& name, const std::string& sentence) const {
    throw JsonFault{{path_ + "/" + name, sentence}};
}

const nlohmann::json* JsonFields::find(const std::string& name) {
    asked_.insert(name);
    const auto hit = object_->find(name);
    return hit == object_->end() ? nullptr : &*hit;
}

const nlohmann::json& JsonFields::need(const std::string& name) {
    const nlohmann::json* value = find(name);
    if (value == nullptr) fault(name, "This field is missing.");
    return *value;
}

bool JsonFields::has(const std::string& name) { return find(name) != nullptr; }

std::string JsonFields::text(const std::string& name) {
    const auto& value = need(name);
    if (!value.is_string()) fault(name, "Text in quotes is wanted here.");
    auto out = value.get<std::string>();
    if (out.size() > 4000) fault(name, "This text is longer than 4000 bytes.");
    if (out.find('\0') != std::string::npos) fault(name, "This text holds a NUL character.");
    return out;
}

std::string JsonFields::text(const std::string& name, const std::string& fallback) {
    return has(name) ? text(name) : fallback;
}

double JsonFields::number(const std::string& name, double low, double high) {
    const auto& value = need(name);
    if (!value.is_number()) fault(name, "A number is wanted here.");
    const double out = value.get<double>();
    if (!(out >= low && out <= high)) {
        fault(name, "This must be from " + personNumber(low) + " to " + personNumber(high) + ".");
    }
    return out;
}

double JsonFields::number(const std::string& name, double low, double high, double fallback) {
    return has(name) ? number(name, low, high) : fallback;
}

int JsonFields::whole(const std::string& name, int low, int high) {
    const double out = number(name, low, high);
    if (out != std::floor(out)) fault(name, "A whole number is wanted here.");
    return static_cast<int>(out);
}

bool JsonFields::flag(const std::string& name, bool fallback) {
    const nlohmann::json* value = find(name);
    if (value == nullptr) return fallback;
    if (!value->is_boolean()) fault(name, "true or false is wanted here.");
    return value->get<bool>();
}

double JsonFields::quantity(const std::string& name, Unit unit, double low, double high) {
    const auto& value = need(name);
    double out = 0.0;
    if (value.is_number()) {
        out = value.get<double>();
    } else if (value.is_string()) {
        const auto parsed = parseQuantity(value.get<std::string>(), unit);
        if (!parsed) fault(name, parsed.error().sentence);
        out = parsed->value;
    } else {
        fault(name, "A value in " + std::string(plural(unit)) + " is wanted here, such as \"4.7k\".");
    }
    if (!(out >= low && out <= high)) {
        fault(name,
              "This must be from " + formatQuantity(low, unit) + " to " + formatQuantity(high, unit) + ".");
    }
    return out;
}

double JsonFields::quantity(const std::string& name, Unit unit, double low, double high, double fallback) {
    return has(name) ? quantity(name, unit, low, high) : fallback;
}

std::vector<std::string> JsonFields::texts(const std::string& name) {
    const nlohmann::json* value = find(name);
    std::vector<std::string> out;
    if (value == nullptr) return out;
    if (!value->is_array()) fault(name, "A list in brackets is wanted here.");
    for (const auto& item : *value) {
        if (!item.is_string())
            fault(name + "/" + std::to_string(out.size()), "Text in quotes is wanted here.");
        out.push_back(item.get<std::string>());
    }
    return out;
}

std::vector<JsonFields> JsonFields::objects(const std::string& name) {
    const nlohmann::json* value = find(name);
    std::vector<JsonFields> out;
    if (value == nullptr) return out;
    if (!value->is_array()) fault(name, "A list in brackets is wanted here.");
    for (const auto& item : *value)
        out.emplace_back(item, path_ + "/" + name + "/" + std::to_string(out.size()));
    return out;
}

JsonFields JsonFields::object(const std::string& name) { return {need(name), path_ + "/" + name}; }

void JsonFields::finish() const {
    for (const auto& [name, value] : object_->items()) {
        if (!asked_.contains(name) && !name.starts_with("x-")) {
            fault(name, "No field of this name is known here; names for your own use begin with x-.");
        }
    }
}

}  // namespace ombrek
