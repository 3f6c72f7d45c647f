#pragma once

namespace rim {

/// Starts the picture library once for the process. Throws InputError when it does not start.
void startVips();

}  // namespace rim
