#include "core/io/dxf/dxf_tags.h"

#include <array>
#include <charconv>

namespace rim::io::dxf {
namespace {

template <typename... Format>
std::string_view digitsOf(std::array<char, 400>& room, Format... format) {
  const char* end = std::to_chars(room.data(), room.data() + room.size(), format...).ptr;
  return {room.data(), static_cast<std::size_t>(end - room.data())};
}

}  // namespace

void DxfTags::text(int code, std::string_view value) {
  std::array<char, 400> room{};
  const std::string_view digits = digitsOf(room, code);
  constexpr std::size_t kUsualWidth = 3;
  if (digits.size() < kUsualWidth) text_.append(kUsualWidth - digits.size(), ' ');
  text_ += digits;
  text_ += '\n';
  text_ += value;
  text_ += '\n';
}

void DxfTags::integer(int code, long value) {
  std::array<char, 400> room{};
  text(code, digitsOf(room, value));
}

void DxfTags::number(int code, double value, int decimals) {
  std::array<char, 400> room{};
  std::string_view digits = digitsOf(room, value, std::chars_format::fixed, decimals);
  // One digit stays behind the point: it tells readers that this is no whole number.
  while (digits.ends_with('0') && digits[digits.size() - 2] != '.') digits.remove_suffix(1);
  text(code, digits == "-0.0" ? "0.0" : digits);
}

void DxfTags::real(int code, double value) { number(code, value, decimals_); }

void DxfTags::ratio(int code, double value) {
  constexpr int kDecimals = 12;
  number(code, value, kDecimals);
}

void DxfTags::point(int code, Point p, bool flat) {
  constexpr int kNextAxis = 10;
  real(code, p.x);
  real(code + kNextAxis, p.y);
  if (!flat) real(code + 2 * kNextAxis, 0);
}

void DxfTags::handle(int code, Handle handle) {
  constexpr int kHexadecimal = 16;
  std::array<char, 400> room{};
  std::string digits(digitsOf(room, handle, kHexadecimal));
  for (char& c : digits) c = c >= 'a' ? static_cast<char>(c - 'a' + 'A') : c;
  text(code, digits);
}

}  // namespace rim::io::dxf
