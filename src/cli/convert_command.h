#pragma once

namespace CLI {
class App;
}

namespace rim::cli {

/// Adds `convert`: a drawing in one format becomes the same in another. `result` receives the exit code.
void addConvertCommand(CLI::App& app, int& result);

}  // namespace rim::cli
