#include "core/io/job/recipe_file.h"

#include <fstream>
#include <nlohmann/json.hpp>
#include <sstream>

#include "core/error.h"
#include "core/io/common/safe_file.h"
#include "core/io/job/job_file.h"
#include "core/io/job/recipe_json.h"

namespace rim {
namespace {

std::string textIn(const std::filesystem::path& file) {
  constexpr std::uintmax_t kMostBytes = 64'000'000;
  std::error_code trouble;
  const std::uintmax_t size = std::filesystem::file_size(file, trouble);
  if (trouble) throw InputError("there is no such file.");
  if (size > kMostBytes) throw InputError("this is no recipe: it is larger than 64 MB.");
  std::ifstream in(file, std::ios::binary);
  std::ostringstream text;
  text << in.rdbuf();
  return text.str();
}

}  // namespace

void saveRecipe(const Recipe& recipe, const std::filesystem::path& file) {
  writeBeside(file, [&recipe](const std::filesystem::path& beside) {
    std::ofstream out(beside, std::ios::binary);
    if (!(out << recipeText(recipe) << '\n' << std::flush))
      throw WriteError("the recipe could not be written: the disk may be full.");
  });
}

Recipe loadRecipe(const std::filesystem::path& file) {
  Recipe recipe;
  if (isJobFile(file)) {
    recipe = static_cast<Recipe&&>(loadJob(file));
    recipe.original = {};
    recipe.drawing.reset();
    return recipe;
  }
  readRecipe(recipeJsonFrom(textIn(file)), recipe);
  return recipe;
}

}  // namespace rim
