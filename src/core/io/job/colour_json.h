#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/job/job.h"

namespace rim {

/// The colour settings as a JSON object: whether they are used, the number of inks, the layout, and the decisions in
/// order ("do", whether each is on, and its values by name).
nlohmann::json toJson(const ColourSettings& settings);

/// The settings that such an object says. Throws InputError when something is missing, unknown or outside its range.
ColourSettings colourSettingsFrom(const nlohmann::json& json);

}  // namespace rim
