#include <CLI/CLI.hpp>
#include <iostream>

#include "cli/check_command.h"
#include "cli/convert_command.h"
#include "cli/mend_command.h"
#include "cli/trace_command.h"

namespace {

constexpr int kBadUsage = 2;

int usageError(const CLI::App& app, const CLI::ParseError& error) {
  if (error.get_exit_code() == 0) return app.exit(error);  // --help, --version
  std::cerr << "snugrim-cli: " << error.what() << ". See snugrim-cli --help.\n";
  return kBadUsage;
}

}  // namespace

int main(int argc, char** argv) {
  CLI::App app("Turns pictures into closed outlines of a known size.", "snugrim-cli");
  app.set_version_flag("--version", SNUGRIM_VERSION);
  app.require_subcommand(1);
  int result = 0;
  rim::cli::addTraceCommand(app, result);
  rim::cli::addCheckCommand(app, result);
  rim::cli::addMendCommand(app, result);
  rim::cli::addConvertCommand(app, result);
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return usageError(app, error);
  } catch (const std::exception& error) {
    // Each command names its file in its own messages; what comes here is not about a file.
    std::cerr << "snugrim-cli: " << error.what() << '\n';
    return kBadUsage;
  }
  return result;
}
