#pragma once

#include <filesystem>
#include <functional>
#include <stop_token>
#include <string>
#include <vector>

#include "core/io/export.h"
#include "core/job/job.h"

namespace rim::io {

/// What became of one picture of many.
struct BatchItem {
  enum class State {
    Done,      ///< its files were written
    UpToDate,  ///< its files are newer than picture and recipe, and were left alone
    Failed,    ///< `why` says it; none of its files was written, or only some
  };
  std::filesystem::path picture;
  std::vector<std::filesystem::path> outputs;
  State state = State::Failed;
  std::string why;
};

/// "done", "up-to-date", "failed".
std::string nameOf(BatchItem::State state);

struct BatchWish {
  std::filesystem::path folder;                ///< where the files go; it is made when it is not there
  std::vector<std::string> endings{".svg"};    ///< ".svg", ".dxf"
  std::filesystem::file_time_type recipeTime;  ///< files older than this are written again
  unsigned atOnce = 1;                         ///< pictures at the same time, from 1
  job::ExportSettings files;
  bool fileEach = false;                       ///< one file a layer; then none is told to be up to date
  std::function<void(const BatchItem&)> done;  ///< told of each, in any order, one at a time
  std::stop_token stop;
};

/// The files of each picture in the folder, named like it; a second picture of that name gets "-2", whatever folder and
/// format it comes from, so that none overwrites another's.
std::vector<std::vector<std::filesystem::path>> batchOutputs(const std::vector<std::filesystem::path>& pictures,
                                                             const std::filesystem::path& folder,
                                                             const std::vector<std::string>& endings);

/// Does to every picture what the recipe says, but for what was done by hand (forOthers() in job/job.h), and writes it.
/// What goes wrong with one stops none of the others. In the order of the pictures. Throws WriteError when the folder
/// cannot be made, Cancelled.
std::vector<BatchItem> runBatch(const job::Recipe& recipe, const std::vector<std::filesystem::path>& pictures,
                                const BatchWish& wish);

/// The report of the command line as JSON text: of each picture its source, outputs, state and, where something is to
/// be said, why.
std::string batchJson(const std::vector<BatchItem>& items);

}  // namespace rim::io
