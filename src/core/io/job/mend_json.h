#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/mend/decide.h"

namespace rim {

/// Settings and decisions of the Mend step as they stand in a job file.
nlohmann::json toJson(const MendWork& work);

/// Throws InputError when something is missing or out of range.
MendWork mendWorkFrom(const nlohmann::json& json);

}  // namespace rim
