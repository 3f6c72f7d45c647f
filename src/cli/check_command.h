#pragma once

namespace CLI {
class App;
}

namespace rim::cli {

/// Adds `check`: finds every fault in a drawing; exit 1 when there are any. `result` receives the exit code.
void addCheckCommand(CLI::App& app, int& result);

}  // namespace rim::cli
