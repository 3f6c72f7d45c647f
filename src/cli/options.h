#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace CLI {
class App;
class Option;
}  // namespace CLI

/// A thin face of the library that reads the command line: what the commands use of it, without its headers, which take
/// half a minute to compile.
namespace rim::cli {

/// An option of a command, to be told more about.
class Option {
 public:
  explicit Option(CLI::Option* option) : option_(option) {}

  /// How the help calls its value.
  Option& takes(const std::string& what);
  /// What the help shows as its default; without a text, the value it has now.
  Option& standsFor(const std::string& text);
  Option& showsDefault();
  Option& required();
  /// Only numbers from `low` to `high`; "nan" is none.
  Option& within(double low, double high);
  Option& oneOf(const std::vector<std::string>& texts);
  /// `fault` gives the sentence that says what is wrong with a text; empty when nothing is.
  Option& checkedBy(const std::function<std::string(const std::string&)>& fault);
  /// The heading of the help that it stands under.
  Option& under(const std::string& group);
  /// Several values in one argument.
  Option& separatedBy(char delimiter);
  /// Exactly so many values.
  Option& values(int count);
  /// One value each time it is given.
  Option& oneEach();
  Option& needs(const Option& other);
  Option& excludes(const Option& other);

 private:
  CLI::Option* option_;
};

/// A command of the tool, which options are added to. `names` are as they are typed: "-o,--out", or "drawing" for an
/// argument without a name. References must outlive the command.
class Command {
 public:
  explicit Command(CLI::App* app) : app_(app) {}

  Option add(const std::string& names, std::string& value, const std::string& help);
  Option add(const std::string& names, double& value, const std::string& help);
  Option add(const std::string& names, int& value, const std::string& help);
  Option add(const std::string& names, std::vector<std::string>& value, const std::string& help);
  Option add(const std::string& names, std::vector<int>& value, const std::string& help);
  Option flag(const std::string& names, bool& value, const std::string& help);

  /// One of several words, each of which stands for a value.
  template <typename Enum, typename Value>
  Option choice(const std::string& names, Value& value, const std::map<std::string, Enum>& words,
                const std::string& help) {
    std::map<std::string, int> numbers;
    for (const auto& [word, meant] : words) numbers[word] = static_cast<int>(meant);
    return choose(
        names, numbers, [&value](int number) { value = static_cast<Enum>(number); }, help);
  }

  /// An option that may be there several times and is taken where it stands among all others: `take` gets its value and
  /// says what is wrong with it; nothing when it is taken.
  Option inTurn(const std::string& names, const std::function<std::string(const std::string&)>& take,
                const std::string& help);
  /// The same without a value.
  Option flagInTurn(const std::string& names, const std::function<void()>& take, const std::string& help);

  /// What the command does; its exit code is the program's.
  void does(const std::function<int()>& work);

 private:
  friend class Program;
  Option choose(const std::string& names, const std::map<std::string, int>& words, const std::function<void(int)>& take,
                const std::string& help);

  CLI::App* app_;
  std::function<void(int)> result_;
};

/// The whole tool: its commands, one of which must be given.
class Program {
 public:
  Program(const std::string& name, const std::string& version, const std::string& about);
  ~Program();
  Program(const Program&) = delete;
  Program& operator=(const Program&) = delete;

  Command command(const std::string& name, const std::string& about);

  /// Reads the command line and does what it says. 2, with a line on standard error, when that makes no sense.
  int run(int argc, char** argv);

 private:
  std::unique_ptr<CLI::App> app_;
  std::shared_ptr<int> result_;
};

/// Whether a text is a whole number from `low` to `high`.
bool isWholeWithin(const std::string& text, int low, int high);
/// Whether it is a number from `low` to `high`; "nan" is none.
bool isNumberWithin(const std::string& text, double low, double high);

}  // namespace rim::cli
