#include "core/picture/vips_library.h"

#include <gmodule.h>

#include <filesystem>
#include <mutex>
#include <string>
#include <vips/vips8>

#include "core/error.h"

namespace rim::picture {
namespace {

/// The library loads all modules that lie beside it, wherever this variable says that is; who has set it knows why.
class WithoutModules {
 public:
  WithoutModules() : own_(g_getenv(kHome) == nullptr) {
    if (own_) g_setenv(kHome, "/nonexistent", FALSE);
  }
  ~WithoutModules() {
    if (own_) g_unsetenv(kHome);
  }
  WithoutModules(const WithoutModules&) = delete;
  WithoutModules& operator=(const WithoutModules&) = delete;

 private:
  static constexpr const char* kHome = "VIPSHOME";
  bool own_;
};

}  // namespace

void startVips() {
  static std::once_flag once;
  std::call_once(once, [] {
    if (VIPS_INIT("snugrim") != 0) throw InputError("the picture library could not be started.");
    // Every picture is decoded once: keeping results would only hold memory.
    vips_cache_set_max(0);
    vips_concurrency_set(2);
    // What is wrong with a picture is told by the exception, in our words.
    g_log_set_handler(
        "VIPS", G_LOG_LEVEL_WARNING, [](const char*, GLogLevelFlags, const char*, void*) {}, nullptr);
  });
}

void startVipsAlone() {
  const WithoutModules without;
  startVips();
}

void loadVipsModules() {
  static std::once_flag once;
  std::call_once(once, [] {
    const std::string version = std::to_string(VIPS_MAJOR_VERSION) + "." + std::to_string(VIPS_MINOR_VERSION);
    const std::filesystem::path folder = std::filesystem::path(VIPS_LIBRARIES) / ("vips-modules-" + version);
    std::error_code none;  // where the library was built without modules there is no folder
    for (const auto& file : std::filesystem::directory_iterator(folder, none)) {
      GModule* const module = g_module_open(file.path().c_str(), G_MODULE_BIND_LAZY);
      if (module != nullptr) g_module_make_resident(module);
    }
  });
}

}  // namespace rim::picture
