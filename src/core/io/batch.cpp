#include "core/io/batch.h"

#include <algorithm>
#include <atomic>
#include <cctype>
#include <mutex>
#include <nlohmann/json.hpp>
#include <set>
#include <thread>

#include "core/error.h"
#include "core/io/deliver.h"
#include "core/job/stages.h"
#include "core/picture/load.h"

namespace rim::io {
namespace {

/// File names that a case-blind disk would take for the same.
std::string folded(std::string name) {
  std::transform(name.begin(), name.end(), name.begin(), [](unsigned char c) { return std::tolower(c); });
  return name;
}

bool isUpToDate(const BatchItem& item, std::filesystem::file_time_type recipeTime) {
  std::error_code trouble;
  const auto picture = std::filesystem::last_write_time(item.picture, trouble);
  if (trouble) return false;
  return std::all_of(item.outputs.begin(), item.outputs.end(), [&](const std::filesystem::path& output) {
    std::error_code missing;
    const auto written = std::filesystem::last_write_time(output, missing);
    return !missing && written >= picture && written >= recipeTime;
  });
}

job::Job jobFor(const job::Recipe& recipe, const std::filesystem::path& picture, const std::stop_token& stop) {
  job::Job job = job::jobOn(picture::loadPicture(picture, 1));
  picture::Picture original = std::move(job.original);
  static_cast<job::Recipe&>(job) = job::forOthers(recipe);
  job.original = std::move(original);
  job::StageWatch watch;
  watch.control.stop = stop;
  return job::workedOut(std::move(job), watch);
}

void work(BatchItem& item, const job::Recipe& recipe, const BatchWish& wish) {
  if (!wish.fileEach && isUpToDate(item, wish.recipeTime)) {
    item.state = BatchItem::State::UpToDate;
    return;
  }
  try {
    const job::Job job = jobFor(recipe, item.picture, wish.stop);
    std::vector<std::filesystem::path> written;
    for (const std::filesystem::path& output : item.outputs) {
      for (Delivered& one : deliverJob(job, output, wish.files, {wish.fileEach, {}})) written.push_back(one.file);
    }
    item.outputs = std::move(written);
    item.state = BatchItem::State::Done;
    if (job::outlinesOf(job)->outlines.empty()) item.why = "there are no outlines in it.";
  } catch (const Cancelled&) {
    item.why = "it was stopped.";
  } catch (const std::exception& error) {
    item.why = error.what();
  }
}

}  // namespace

std::vector<std::vector<std::filesystem::path>> batchOutputs(const std::vector<std::filesystem::path>& pictures,
                                                             const std::filesystem::path& folder,
                                                             const std::vector<std::string>& endings) {
  std::set<std::string> taken;
  std::vector<std::vector<std::filesystem::path>> all;
  for (const std::filesystem::path& picture : pictures) {
    const std::string stem = picture.stem().string();
    std::string own = stem;
    for (int k = 2; !taken.insert(folded(own)).second; ++k) own = stem + "-" + std::to_string(k);
    all.emplace_back();
    for (const std::string& ending : endings) all.back().push_back(folder / (own + ending));
  }
  return all;
}

std::vector<BatchItem> runBatch(const job::Recipe& recipe, const std::vector<std::filesystem::path>& pictures,
                                const BatchWish& wish) {
  std::error_code trouble;
  std::filesystem::create_directories(wish.folder, trouble);
  if (!std::filesystem::is_directory(wish.folder)) throw WriteError("the folder cannot be made.");
  const auto outputs = batchOutputs(pictures, wish.folder, wish.endings);
  std::vector<BatchItem> items(pictures.size());
  for (std::size_t i = 0; i < items.size(); ++i) items[i] = {pictures[i], outputs[i], BatchItem::State::Failed, {}};
  std::atomic<std::size_t> next{0};
  std::mutex telling;
  const auto takeOneAfterAnother = [&] {
    for (std::size_t i = next++; i < items.size() && !wish.stop.stop_requested(); i = next++) {
      work(items[i], recipe, wish);
      const std::scoped_lock lock(telling);
      if (wish.done) wish.done(items[i]);
    }
  };
  {
    std::vector<std::jthread> others;
    for (unsigned k = 1; k < wish.atOnce; ++k) others.emplace_back(takeOneAfterAnother);
    takeOneAfterAnother();
  }
  if (wish.stop.stop_requested()) throw Cancelled();
  return items;
}

std::string nameOf(BatchItem::State state) {
  switch (state) {
    case BatchItem::State::Done:
      return "done";
    case BatchItem::State::UpToDate:
      return "up-to-date";
    case BatchItem::State::Failed:
      return "failed";
  }
  return "";
}

std::string batchJson(const std::vector<BatchItem>& items) {
  nlohmann::ordered_json pictures = nlohmann::json::array();
  for (const BatchItem& item : items) {
    nlohmann::ordered_json outputs = nlohmann::json::array();
    for (const std::filesystem::path& output : item.outputs) outputs.push_back(output.string());
    pictures.push_back(
        {{"source", item.picture.string()}, {"outputs", outputs}, {"state", nameOf(item.state)}, {"why", item.why}});
  }
  const nlohmann::ordered_json report{{"pictures", pictures}};
  return report.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

}  // namespace rim::io
