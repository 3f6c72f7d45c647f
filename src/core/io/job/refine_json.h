#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/refine/step.h"

namespace rim::io {

/// What was done in the Refine step as JSON, without loss: an object of `do`, the step's word on the command line, and
/// its numbers. Lengths in mm, but for `remove` and `replace`, whose marks and paths are in the outlines' own units.
nlohmann::json toJson(const refine::Step& step);

/// The step that toJson() wrote. Throws InputError when it is none.
refine::Step refineStepFrom(const nlohmann::json& json);

}  // namespace rim::io
