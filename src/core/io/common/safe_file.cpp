#include "core/io/common/safe_file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <random>
#include <system_error>

#include "core/error.h"

namespace rim::io {
namespace fs = std::filesystem;
namespace {

std::string reason() { return std::string(std::strerror(errno)); }

/// An unused name in the same folder. The file exists, empty, so nobody else can take it; whoever may read new files of
/// this user may read it.
fs::path makeBeside(const fs::path& file) {
  std::random_device random;
  constexpr int kTries = 100;
  constexpr mode_t kWithoutMask = 0666;  // the kernel takes off what the user's mask says
  for (int i = 0; i < kTries; ++i) {
    // The name is cut to what a file system takes.
    constexpr std::size_t kLongest = 200;
    const std::string own = file.filename().string().substr(0, kLongest);
    const fs::path beside = file.parent_path() / ("." + own + "." + std::to_string(random()));
    const int made = ::open(beside.c_str(), O_CREAT | O_EXCL | O_WRONLY | O_CLOEXEC, kWithoutMask);
    if (made < 0 && errno == EEXIST) continue;
    if (made < 0) break;
    ::close(made);
    return beside;
  }
  throw WriteError("nothing can be written to this folder: " + reason() + ".");
}

void flushToDisk(const fs::path& file) {
  const int handle = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
  if (handle < 0) throw WriteError("the new file is gone: " + reason() + ".");
  const bool flushed = ::fsync(handle) == 0;
  const std::string why = reason();
  ::close(handle);
  if (!flushed) throw WriteError("the file could not be brought to the disk: " + why + ".");
}

/// A file that takes the place of another has its permissions.
void keepPermissions(const fs::path& beside, const fs::path& target) {
  std::error_code failed;
  const fs::file_status old = fs::status(target, failed);
  if (!failed && fs::exists(old)) fs::permissions(beside, old.permissions());
}

/// Whether whoever may rename files here may not write this one. The administrator may write all: then what counts is
/// whether anybody is allowed to.
bool isProtected(const fs::path& target) {
  struct stat facts {};
  if (::stat(target.c_str(), &facts) != 0) return false;
  return (facts.st_mode & (S_IWUSR | S_IWGRP | S_IWOTH)) == 0 || ::access(target.c_str(), W_OK) != 0;
}

}  // namespace

void writeBeside(const fs::path& file, const std::function<void(const fs::path&)>& write) {
  std::error_code failed;
  const fs::path linked = fs::weakly_canonical(file, failed);
  const fs::path target = failed || linked.empty() ? fs::absolute(file) : linked;
  if (fs::is_directory(target)) throw WriteError("there is a folder of this name.");
  if (isProtected(target)) throw WriteError("the file is protected against writing. Choose another name, or allow it.");
  const fs::path beside = makeBeside(target);
  try {
    write(beside);
    flushToDisk(beside);
    keepPermissions(beside, target);
    fs::rename(beside, target);
  } catch (const fs::filesystem_error& error) {
    fs::remove(beside, failed);
    throw WriteError("the file could not be put in its place: " + error.code().message() + ".");
  } catch (...) {
    fs::remove(beside, failed);
    throw;
  }
}

}  // namespace rim::io
