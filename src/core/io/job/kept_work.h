#pragma once

#include <filesystem>
#include <optional>
#include <stop_token>
#include <string>

#include "core/job/job.h"

namespace rim::io {

/// What is said about work that was kept.
struct KeptNote {
  std::string name;               ///< of the picture or drawing (UTF-8)
  std::filesystem::path jobFile;  ///< the file that it was saved to last; empty: never

  friend bool operator==(const KeptNote&, const KeptNote&) = default;
};

/// Work that is in no file yet, kept in a folder of its own so that a crash or a power cut loses little: the picture or
/// the drawing and reference copies as a job file of its own, written once, and beside it what was decided, written
/// after every change. At every moment both fit each other: a new picture gets a new file, and what was decided names
/// the one it is about.
class WorkKeeper {
 public:
  /// The folder is made when something is kept.
  explicit WorkKeeper(std::filesystem::path folder) : folder_(std::move(folder)) {}

  /// Keeps the job. Throws WriteError.
  void keep(const job::Job& job, const KeptNote& note);

  /// Nothing is kept any more; what was written of the picture stays for the next time.
  void forget();

 private:
  std::filesystem::path folder_;
  std::string base_;                                       ///< the file with the picture
  picture::PictureId picture_ = picture::PictureId::None;  ///< that it holds
  std::shared_ptr<const Drawing> drawing_;                 ///< or the drawing
  std::vector<job::Reference> references_;                 ///< and the reference copies
};

/// When the work in a folder was changed last; a time long ago when there is none.
std::filesystem::file_time_type keptAt(const std::filesystem::path& folder);

/// What is said about the work that is kept in a folder; none: there is none that is whole.
std::optional<KeptNote> keptNoteIn(const std::filesystem::path& folder);

/// The work that is kept in a folder. Throws InputError when it is damaged, Cancelled.
job::Job loadKept(const std::filesystem::path& folder, const std::stop_token& stop = {});

}  // namespace rim::io
