#include "core/io/common/json_number.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "core/error.h"

namespace rim::io {

double numberIn(const nlohmann::json& json, const char* key, double low, double high) {
  const auto at = json.is_object() ? json.find(key) : json.end();
  if (!json.is_object() || at == json.end() || !at->is_number())
    throw InputError("the number \"" + std::string(key) + "\" is missing.");
  const auto value = at->get<double>();
  if (!(value >= low && value <= high)) throw InputError("the number \"" + std::string(key) + "\" is out of range.");
  return value;
}

int wholeIn(const nlohmann::json& json, const char* key, int low, int high) {
  return static_cast<int>(std::lround(numberIn(json, key, low, high)));
}

bool flagIn(const nlohmann::json& json, const char* key, bool otherwise) {
  const auto at = json.is_object() ? json.find(key) : json.end();
  return json.is_object() && at != json.end() && at->is_boolean() ? at->get<bool>() : otherwise;
}

std::string textIn(const nlohmann::json& json, const char* key) {
  const auto at = json.is_object() ? json.find(key) : json.end();
  return json.is_object() && at != json.end() && at->is_string() ? at->get<std::string>() : std::string();
}

std::vector<std::string> textsIn(const nlohmann::json& json, const char* key) {
  std::vector<std::string> texts;
  for (const nlohmann::json& text : json.at(key)) {
    if (!text.is_string()) throw InputError("the list \"" + std::string(key) + "\" is damaged.");
    texts.push_back(text.get<std::string>());
  }
  return texts;
}

int oneOf(std::span<const char* const> names, const nlohmann::json& json, const char* key) {
  const std::string text = textIn(json, key);
  for (std::size_t i = 0; i < names.size(); ++i) {
    if (text == names[i]) return static_cast<int>(i);
  }
  throw InputError("\"" + text + "\" is no " + key + " that is known. A newer version may have written it.");
}

}  // namespace rim::io
