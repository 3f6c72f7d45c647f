#pragma once

#include <filesystem>

#include "core/job/job.h"

namespace rim::io {

/// The ending of recipes.
inline constexpr const char* kRecipeEnding = ".json";

/// Writes what was decided about a job, without its picture: the text of a job's `job.json`. Written beside and
/// renamed. Throws WriteError.
void saveRecipe(const job::Recipe& recipe, const std::filesystem::path& file);

/// What was decided, for other pictures: from a recipe, or from a job, whose picture or drawing is left behind. Throws
/// InputError when it is neither, is damaged, or was written by a newer version.
job::Recipe loadRecipe(const std::filesystem::path& file);

}  // namespace rim::io
