#include "core/io/job/id_text.h"

#include <array>
#include <charconv>
#include <cstdio>

#include "core/error.h"

namespace rim::io {

std::string hexText(std::uint64_t number) {
  std::array<char, 17> digits{};
  std::snprintf(digits.data(), digits.size(), "%016llx", static_cast<unsigned long long>(number));
  return digits.data();
}

std::string idText(OutlineId id) { return hexText(static_cast<std::uint64_t>(id)); }

OutlineId idFromText(const std::string& text) {
  constexpr int kBase = 16;
  std::uint64_t number = 0;
  const char* end = text.data() + text.size();
  const auto [last, error] = std::from_chars(text.data(), end, number, kBase);
  if (error != std::errc() || last != end || number == 0)
    throw InputError("the id of an outline in the job is damaged.");
  return static_cast<OutlineId>(number);
}

}  // namespace rim::io
