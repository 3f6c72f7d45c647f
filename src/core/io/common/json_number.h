#pragma once

#include <nlohmann/json_fwd.hpp>
#include <span>
#include <string>
#include <vector>

namespace rim::io {

/// The number called `key` in an object. Throws InputError unless it is there and within low..high.
double numberIn(const nlohmann::json& json, const char* key, double low, double high);

/// The same for a whole number.
int wholeIn(const nlohmann::json& json, const char* key, int low, int high);

/// The truth value called `key`, or `otherwise` when it is not there.
bool flagIn(const nlohmann::json& json, const char* key, bool otherwise);

/// The text called `key`, or an empty one.
std::string textIn(const nlohmann::json& json, const char* key);

/// The list of texts called `key`. Throws InputError when it is no such list.
std::vector<std::string> textsIn(const nlohmann::json& json, const char* key);

/// The place in `names` of the text called `key`. Throws InputError when it is none of them.
int oneOf(std::span<const char* const> names, const nlohmann::json& json, const char* key);

}  // namespace rim::io
