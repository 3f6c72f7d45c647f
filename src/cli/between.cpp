#include "cli/between.h"

#include <sstream>

namespace rim::cli {

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

}  // namespace rim::cli
