#include "cli/options.h"

#include <CLI/CLI.hpp>
#include <iostream>
#include <sstream>

namespace rim::cli {
namespace {

constexpr int kBadUsage = 2;

CLI::Validator between(double low, double high) {
  std::ostringstream range;
  range << low << " to " << high;
  return {[low, high, text = range.str()](const std::string& typed) {
            double value = 0;
            const bool number = CLI::detail::lexical_cast(typed, value);
            return number && value >= low && value <= high ? std::string{} : typed + " is not a number from " + text;
          },
          range.str()};
}

int usageError(const CLI::App& app, const CLI::ParseError& error) {
  if (error.get_exit_code() == 0) return app.exit(error);  // --help, --version
  std::cerr << "snugrim-cli: " << error.what() << ". See snugrim-cli --help.\n";
  return kBadUsage;
}

}  // namespace

Option& Option::takes(const std::string& what) {
  option_->type_name(what);
  return *this;
}

Option& Option::standsFor(const std::string& text) {
  option_->default_str(text);
  return *this;
}

Option& Option::showsDefault() {
  option_->capture_default_str();
  return *this;
}

Option& Option::required() {
  option_->required();
  return *this;
}

Option& Option::within(double low, double high) {
  option_->check(between(low, high));
  return *this;
}

Option& Option::oneOf(const std::vector<std::string>& texts) {
  option_->check(CLI::IsMember(texts));
  return *this;
}

Option& Option::checkedBy(const std::function<std::string(const std::string&)>& fault) {
  option_->check(fault);
  return *this;
}

Option& Option::under(const std::string& group) {
  option_->group(group);
  return *this;
}

Option& Option::separatedBy(char delimiter) {
  option_->delimiter(delimiter);
  return *this;
}

Option& Option::values(int count) {
  option_->expected(count);
  return *this;
}

Option& Option::oneEach() {
  option_->allow_extra_args(false);
  return *this;
}

Option& Option::needs(const Option& other) {
  option_->needs(other.option_);
  return *this;
}

Option& Option::excludes(const Option& other) {
  option_->excludes(other.option_);
  return *this;
}

Option Command::add(const std::string& names, std::string& value, const std::string& help) {
  return Option(app_->add_option(names, value, help));
}

Option Command::add(const std::string& names, double& value, const std::string& help) {
  return Option(app_->add_option(names, value, help));
}

Option Command::add(const std::string& names, int& value, const std::string& help) {
  return Option(app_->add_option(names, value, help));
}

Option Command::add(const std::string& names, std::vector<std::string>& value, const std::string& help) {
  return Option(app_->add_option(names, value, help));
}

Option Command::add(const std::string& names, std::vector<int>& value, const std::string& help) {
  return Option(app_->add_option(names, value, help));
}

Option Command::flag(const std::string& names, bool& value, const std::string& help) {
  return Option(app_->add_flag(names, value, help));
}

Option Command::inTurn(const std::string& names, const std::function<std::string(const std::string&)>& take,
                       const std::string& help) {
  return Option(app_->add_option_function<std::string>(
                        names,
                        [names, take](const std::string& value) {
                          std::string fault = take(value);
                          if (!fault.empty() && fault.back() == '.') fault.pop_back();  // a sentence follows
                          if (!fault.empty()) throw CLI::ValidationError(names, fault);
                        },
                        help)
                    ->trigger_on_parse());
}

Option Command::flagInTurn(const std::string& names, const std::function<void()>& take, const std::string& help) {
  return Option(app_->add_flag_callback(names, take, help)->trigger_on_parse());
}

Option Command::choose(const std::string& names, const std::map<std::string, int>& words,
                       const std::function<void(int)>& take, const std::string& help) {
  return Option(
      app_->add_option_function<int>(names, take, help)->transform(CLI::CheckedTransformer(words, CLI::ignore_case)));
}

void Command::does(const std::function<int()>& work) {
  app_->callback([work, result = result_] { result(work()); });
}

Program::Program(const std::string& name, const std::string& version, const std::string& about)
    : app_(std::make_unique<CLI::App>(about, name)), result_(std::make_shared<int>(0)) {
  app_->set_version_flag("--version", version);
  app_->require_subcommand(1);
}

Program::~Program() = default;

Command Program::command(const std::string& name, const std::string& about) {
  Command command(app_->add_subcommand(name, about));
  command.result_ = [result = result_](int code) { *result = code; };
  return command;
}

int Program::run(int argc, char** argv) {
  try {
    app_->parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return usageError(*app_, error);
  } catch (const std::exception& error) {
    // Each command names its file in its own messages; what comes here is not about a file.
    std::cerr << "snugrim-cli: " << error.what() << '\n';
    return kBadUsage;
  }
  return *result_;
}

bool isNumberWithin(const std::string& text, double low, double high) { return between(low, high)(text).empty(); }

bool isWholeWithin(const std::string& text, int low, int high) { return CLI::Range(low, high)(text).empty(); }

}  // namespace rim::cli
