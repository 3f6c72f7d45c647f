#pragma once

namespace rim {

/// Starts the picture library once for the process, without its modules. Throws InputError when it does not start.
void startVips();

/// Loads the library's modules, once for the process: without them it reads neither PDF nor BMP. They take longer than
/// most pictures, so that they are left out until one is needed. Needs startVips().
void loadVipsModules();

}  // namespace rim
