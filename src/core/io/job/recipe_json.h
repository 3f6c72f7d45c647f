#pragma once

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

#include "core/job/job.h"

namespace rim::io {

/// What was decided, as the JSON text of `job.json`: preparation, settings, decisions and size, with a version; without
/// the picture's pixels, a drawing that was read, and the outlines of reference copies.
std::string recipeText(const job::Recipe& recipe);

/// What tracing follows from, besides the picture, as compact JSON: preparation, colours and trace settings.
std::string decidedForTrace(const job::Recipe& recipe);

/// The JSON of such a text. Throws InputError when it is none, or was written by a newer version.
nlohmann::json recipeJsonFrom(std::string_view text);

/// Takes what was decided from the JSON; the picture, the drawing and the outlines of reference copies stay. Throws
/// InputError, where those are others than it names, too.
void readRecipe(const nlohmann::json& json, job::Recipe& recipe);

}  // namespace rim::io
