#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/job/job.h"

namespace rim::io {

/// The colour settings as a JSON object: whether they are used, the number of inks, the layout, and the decisions in
/// order ("do", whether each is on, and its values by name).
nlohmann::json toJson(const job::ColourSettings& settings);

/// The settings that such an object says. Throws InputError when something is missing, unknown or outside its range.
job::ColourSettings colourSettingsFrom(const nlohmann::json& json);

}  // namespace rim::io
