#pragma once

#include <cmath>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "core/error.h"

namespace rim {

/// The number called `key` in an object. Throws InputError unless it is there and within low..high.
inline double numberIn(const nlohmann::json& json, const char* key, double low, double high) {
  const auto at = json.is_object() ? json.find(key) : json.end();
  if (!json.is_object() || at == json.end() || !at->is_number())
    throw InputError("the number \"" + std::string(key) + "\" is missing.");
  const auto value = at->get<double>();
  if (!(value >= low && value <= high)) throw InputError("the number \"" + std::string(key) + "\" is out of range.");
  return value;
}

/// The same for a whole number.
inline int wholeIn(const nlohmann::json& json, const char* key, int low, int high) {
  return static_cast<int>(std::lround(numberIn(json, key, low, high)));
}

/// The truth value called `key`, or `otherwise` when it is not there.
inline bool flagIn(const nlohmann::json& json, const char* key, bool otherwise) {
  const auto at = json.is_object() ? json.find(key) : json.end();
  return json.is_object() && at != json.end() && at->is_boolean() ? at->get<bool>() : otherwise;
}

/// The text called `key`, or an empty one.
inline std::string textIn(const nlohmann::json& json, const char* key) {
  const auto at = json.is_object() ? json.find(key) : json.end();
  return json.is_object() && at != json.end() && at->is_string() ? at->get<std::string>() : std::string();
}

/// The list of texts called `key`. Throws InputError when it is no such list.
inline std::vector<std::string> textsIn(const nlohmann::json& json, const char* key) {
  std::vector<std::string> texts;
  for (const nlohmann::json& text : json.at(key)) {
    if (!text.is_string()) throw InputError("the list \"" + std::string(key) + "\" is damaged.");
    texts.push_back(text.get<std::string>());
  }
  return texts;
}

}  // namespace rim
