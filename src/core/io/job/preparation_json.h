#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/picture/preparation.h"

namespace rim::io {

/// A step as a JSON object: what is done ("do"), whether it is on, and its numbers by their names.
nlohmann::json toJson(const picture::PreparationStep& step);

/// The step that such an object says. Throws InputError when it names no step, or a number is
/// missing, no number or outside its range.
picture::PreparationStep preparationStepFrom(const nlohmann::json& json);

}  // namespace rim::io
