#include "core/picture/vips_library.h"

#include <mutex>
#include <vips/vips8>

#include "core/error.h"

namespace rim {

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

}  // namespace rim
