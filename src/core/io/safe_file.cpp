#include "core/io/safe_file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <system_error>

#include "core/error.h"

namespace rim {
namespace fs = std::filesystem;
namespace {

std::string reason() { return std::string(std::strerror(errno)); }

/// An unused name in the same folder. The file exists, empty, so nobody else can take it.
fs::path makeBeside(const fs::path& file) {
  std::string name = (file.parent_path() / ("." + file.filename().string() + ".XXXXXX")).string();
  const int made = ::mkstemp(name.data());
  if (made < 0) throw WriteError("nothing can be written to this folder: " + reason() + ".");
  ::close(made);
  return name;
}

void flushToDisk(const fs::path& file) {
  const int handle = ::open(file.c_str(), O_RDONLY | O_CLOEXEC);
  if (handle < 0) throw WriteError("the new file is gone: " + reason() + ".");
  const bool flushed = ::fsync(handle) == 0;
  const std::string why = reason();
  ::close(handle);
  if (!flushed) throw WriteError("the file could not be brought to the disk: " + why + ".");
}

fs::perms permissionsFor(const fs::path& file) {
  std::error_code failed;
  const fs::file_status old = fs::status(file, failed);
  if (!failed && fs::exists(old)) return old.permissions();
  const mode_t mask = ::umask(0);
  ::umask(mask);
  return static_cast<fs::perms>(0666 & ~mask);
}

}  // namespace

void writeBeside(const fs::path& file, const std::function<void(const fs::path&)>& write) {
  std::error_code failed;
  const fs::path linked = fs::weakly_canonical(file, failed);
  const fs::path target = failed || linked.empty() ? fs::absolute(file) : linked;
  if (fs::is_directory(target)) throw WriteError("there is a folder of this name.");
  const fs::path beside = makeBeside(target);
  try {
    write(beside);
    flushToDisk(beside);
    fs::permissions(beside, permissionsFor(target));
    fs::rename(beside, target);
  } catch (const fs::filesystem_error& error) {
    fs::remove(beside, failed);
    throw WriteError("the file could not be put in its place: " + error.code().message() + ".");
  } catch (...) {
    fs::remove(beside, failed);
    throw;
  }
}

}  // namespace rim
