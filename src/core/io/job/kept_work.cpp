#include "core/io/job/kept_work.h"

#include <algorithm>
#include <fstream>
#include <nlohmann/json.hpp>

#include "core/error.h"
#include "core/io/common/json_number.h"
#include "core/io/common/safe_file.h"
#include "core/io/job/job_file.h"
#include "core/io/job/recipe_json.h"

namespace rim::io {
namespace fs = std::filesystem;
namespace {

using Json = nlohmann::json;
constexpr const char* kDecisions = "decisions.json";

/// A name that no file of the folder has.
std::string freshName(const fs::path& folder) {
  for (int i = 1;; ++i) {
    std::string name = "work-";
    name += std::to_string(i);
    name += kJobEnding;
    if (!fs::exists(folder / name)) return name;
  }
}

/// What was decided, as it was kept; null when it is none.
Json decisionsIn(const fs::path& folder) {
  std::ifstream in(folder / kDecisions, std::ios::binary);
  if (!in) return {};
  constexpr bool kThrow = false;
  Json json = Json::parse(in, nullptr, kThrow);
  const auto isText = [&json](const char* key) { return json.contains(key) && json[key].is_string(); };
  const bool whole = json.is_object() && isText("picture") && isText("name") && isText("file") && isText("decided");
  // The name of a file beside it, and nothing else.
  if (!whole || textIn(json, "picture") != fs::path(textIn(json, "picture")).filename().string()) return {};
  return json;
}

/// Whether reference copies hold the same outlines, whatever they are called.
bool sameOutlines(const std::vector<job::Reference>& a, const std::vector<job::Reference>& b) {
  return std::equal(a.begin(), a.end(), b.begin(), b.end(), [](const job::Reference& one, const job::Reference& other) {
    return one.outlines == other.outlines;
  });
}

}  // namespace

void WorkKeeper::keep(const job::Job& job, const KeptNote& note) {
  std::error_code failed;
  fs::create_directories(folder_, failed);
  if (failed) throw WriteError("the folder for it cannot be made: " + failed.message() + ".");
  const bool another = base_.empty() || picture_ != job.original.id || drawing_ != job.drawing ||
                       !sameOutlines(references_, job.references);
  const std::string before = base_;
  if (another) {
    const std::string name = freshName(folder_);
    job::Job plain;
    plain.original = job.original;
    plain.drawing = job.drawing;
    plain.references = job.references;
    saveJob(plain, folder_ / name);
    base_ = name;
    picture_ = job.original.id;
    drawing_ = job.drawing;
    references_ = job.references;
  }
  const Json json{
      {"picture", base_}, {"name", note.name}, {"file", note.jobFile.string()}, {"decided", recipeText(job)}};
  writeBeside(folder_ / kDecisions, [&json](const fs::path& beside) {
    std::ofstream out(beside, std::ios::binary);
    out << json.dump(-1, ' ', false, Json::error_handler_t::replace);
    out.flush();
    if (!out) throw WriteError("the disk is full, or the folder cannot be written to.");
  });
  if (another && !before.empty()) fs::remove(folder_ / before, failed);
}

void WorkKeeper::forget() {
  std::error_code failed;
  fs::remove(folder_ / kDecisions, failed);
}

std::optional<KeptNote> keptNoteIn(const fs::path& folder) {
  const Json json = decisionsIn(folder);
  if (json.is_null() || !fs::exists(folder / textIn(json, "picture"))) return std::nullopt;
  return KeptNote{textIn(json, "name"), fs::path(textIn(json, "file"))};
}

std::filesystem::file_time_type keptAt(const fs::path& folder) {
  std::error_code missing;
  const auto at = fs::last_write_time(folder / kDecisions, missing);
  return missing ? fs::file_time_type::min() : at;
}

job::Job loadKept(const fs::path& folder, const std::stop_token& stop) {
  const Json json = decisionsIn(folder);
  if (json.is_null()) throw InputError("what was kept of this work is damaged.");
  job::Job job = loadJob(folder / textIn(json, "picture"), stop);
  readRecipe(recipeJsonFrom(textIn(json, "decided")), job);
  return job;
}

}  // namespace rim::io
