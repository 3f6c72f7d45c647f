#pragma once

namespace rim::picture {

/// Starts the picture library once for the process, with all its modules unless startVipsAlone() came first. Throws
/// InputError when it does not start.
void startVips();

/// The same without its modules, which takes a fraction of the time. Changes the environment for a moment: to be called
/// where a program begins, before it has a second thread.
void startVipsAlone();

/// Loads the library's modules, once for the process: without them it reads neither PDF nor BMP. They take longer than
/// most pictures, so that they are left out until one is needed. Needs startVips().
void loadVipsModules();

}  // namespace rim::picture
