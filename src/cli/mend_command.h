#pragma once

namespace CLI {
class App;
}

namespace rim::cli {

/// Adds `mend`: repairs the faults of a drawing. `result` receives the exit code.
void addMendCommand(CLI::App& app, int& result);

}  // namespace rim::cli
