#pragma once

#include <iostream>
#include <string>

#include "cli/options.h"
#include "core/error.h"
#include "core/io/export.h"
#include "core/trace/trace.h"

namespace rim::cli {

inline constexpr int kDone = 0;
inline constexpr int kFoundSomething = 1;
inline constexpr int kUnreadable = 2;

/// Adds `--curves`, `--dxf` and `--units`.
void addFileForm(Command& command, job::ExportSettings& files);

/// Adds `--report` and `--quiet`.
void addTelling(Command& command, std::string& report, bool& quiet);

/// What is asked of the receipt for a file that is written.
struct ReceiptWish {
  std::string file;  ///< where it goes; empty: nowhere
  bool strict = false;
};

/// Adds `--receipt` and, unless the command has it, `--strict`.
void addReceipt(Command& command, ReceiptWish& wish, bool withStrict = true);

/// Reads a file that was just written and writes the receipt when one is wished for; `meant` is what should be in it,
/// in mm. The exit code: kFoundSomething when it is strict and the receipt is not clean, else `code`.
int withReceipt(const ReceiptWish& wish, const std::string& written, Drawing meant, int code);

/// Writes a report to a file, or to standard output for "-". Throws InputError that names the file.
void writeReport(const std::string& where, const std::string& text);

/// "tracing 37 %" on standard error when that is a terminal and `quiet` is off.
WorkControl progressOnTerminal(const std::string& doing, bool quiet);

/// Runs one step and puts the name of its file before whatever it has to say; a message that begins with a line number
/// follows it without a space.
template <typename Step>
auto about(const std::string& file, Step step) {
  try {
    return step();
  } catch (const std::runtime_error& error) {
    const std::string what = error.what();
    const std::size_t digits = what.find_first_not_of("0123456789");
    const bool hasLine = digits != 0 && digits != std::string::npos && what[digits] == ':';
    throw InputError(file + (hasLine ? ":" : ": ") + what);
  }
}

/// Runs a command and gives its exit code; what it throws becomes one line on standard error.
template <typename Command>
int runGuarded(Command command) {
  try {
    return command();
  } catch (const std::exception& error) {
    std::cerr << "snugrim-cli: " << error.what() << '\n';
    return kUnreadable;
  }
}

}  // namespace rim::cli
