#include "core/io/job/recipe_file.h"

#include <fstream>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/read_bytes.h"
#include "core/io/common/safe_file.h"
#include "core/io/job/job_file.h"
#include "core/io/job/recipe_json.h"

namespace rim::io {
void saveRecipe(const job::Recipe& recipe, const std::filesystem::path& file) {
  writeBeside(file, [&recipe](const std::filesystem::path& beside) {
    std::ofstream out(beside, std::ios::binary);
    if (!(out << recipeText(recipe) << '\n' << std::flush))
      throw WriteError("the recipe could not be written: the disk may be full.");
  });
}

job::Recipe loadRecipe(const std::filesystem::path& file) {
  job::Recipe recipe;
  if (isJobFile(file)) {
    recipe = static_cast<job::Recipe&&>(loadJob(file));
    recipe.original = {};
    recipe.drawing.reset();
    return recipe;
  }
  constexpr std::uintmax_t kMostBytes = 64'000'000;
  readRecipe(recipeJsonFrom(bytesOf(file, kMostBytes, "recipe")), recipe);
  return recipe;
}

}  // namespace rim::io
