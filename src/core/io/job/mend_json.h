#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/mend/decide.h"

namespace rim::io {

/// Settings and decisions of the Mend step as they stand in a job file.
nlohmann::json toJson(const mend::MendWork& work);

/// Throws InputError when something is missing or out of range.
mend::MendWork mendWorkFrom(const nlohmann::json& json);

}  // namespace rim::io
