#include "core/io/dxf/dxf_text.h"

#include <iconv.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cstdint>
#include <cstdio>
#include <cstring>
#include <memory>

#include "core/error.h"

namespace rim::io::dxf {
namespace {

constexpr std::string_view kBinaryMark("AutoCAD Binary DXF\r\n\x1a\0", 22);
constexpr std::string_view kUnknownLetter = "\xEF\xBF\xBD";

/// How the value of a group is held in a binary file (DXF reference, "Group Code Value Types").
enum class Value { Text, Double, Int16, Int32, Int64, Byte, Chunk };

Value kindOf(int code) {
  struct Range {
    int from, to;
    Value kind;
  };
  constexpr std::array kRanges{
      Range{10, 59, Value::Double},    Range{60, 79, Value::Int16},      Range{90, 99, Value::Int32},
      Range{110, 149, Value::Double},  Range{160, 169, Value::Int64},    Range{170, 179, Value::Int16},
      Range{210, 239, Value::Double},  Range{270, 289, Value::Int16},    Range{290, 299, Value::Byte},
      Range{310, 319, Value::Chunk},   Range{370, 389, Value::Int16},    Range{400, 409, Value::Int16},
      Range{420, 429, Value::Int32},   Range{440, 459, Value::Int32},    Range{460, 469, Value::Double},
      Range{1004, 1004, Value::Chunk}, Range{1010, 1059, Value::Double}, Range{1060, 1070, Value::Int16},
      Range{1071, 1071, Value::Int32}};
  const auto own =
      std::find_if(kRanges.begin(), kRanges.end(), [code](const Range& r) { return code >= r.from && code <= r.to; });
  return own == kRanges.end() ? Value::Text : own->kind;
}

/// Takes a binary file apart into the pairs of lines of a text file.
class BinaryReader {
 public:
  explicit BinaryReader(std::string_view bytes) : left_(bytes.substr(kBinaryMark.size())) {
    // The first group is 0, "SECTION": its code is followed by the text at once when codes have one byte.
    oneByteCodes_ = left_.size() > 1 && left_[0] == 0 && left_[1] != 0;
  }

  std::string text() {
    std::string text;
    while (!left_.empty()) {
      const int code = nextCode();
      text += std::to_string(code) + "\n";
      const std::size_t at = text.size();
      addValue(kindOf(code), text);
      text += '\n';
      if (code == 0 && std::string_view(text).substr(at) == "EOF\n") break;
    }
    return text;
  }

 private:
  template <typename Number>
  Number next() {
    Number value{};
    if (left_.size() < sizeof value) fail();
    std::memcpy(&value, left_.data(), sizeof value);  // both are little-endian
    left_.remove_prefix(sizeof value);
    return value;
  }

  int nextCode() {
    if (!oneByteCodes_) return next<std::int16_t>();
    constexpr int kLongCode = 255;
    const int code = next<std::uint8_t>();
    return code == kLongCode ? next<std::int16_t>() : code;
  }

  void addValue(Value kind, std::string& text) {
    switch (kind) {
      case Value::Double: {
        std::array<char, 32> digits{};
        text.append(digits.data(), std::to_chars(digits.data(), digits.data() + digits.size(), next<double>()).ptr);
        return;
      }
      case Value::Int16:
        text += std::to_string(next<std::int16_t>());
        return;
      case Value::Int32:
        text += std::to_string(next<std::int32_t>());
        return;
      case Value::Int64:
        text += std::to_string(next<std::int64_t>());
        return;
      case Value::Byte:
        text += std::to_string(next<std::uint8_t>());
        return;
      case Value::Chunk: {
        const std::size_t size = next<std::uint8_t>();
        if (left_.size() < size) fail();
        left_.remove_prefix(size);  // a program's own bytes
        return;
      }
      case Value::Text:
        break;
    }
    const std::size_t end = left_.find('\0');
    if (end == std::string_view::npos) fail();
    std::string own(left_.substr(0, end));
    std::replace_if(
        own.begin(), own.end(), [](char c) { return c == '\n' || c == '\r'; }, ' ');
    text += own;
    left_.remove_prefix(end + 1);
  }

  [[noreturn]] static void fail() { throw InputError("this binary DXF is cut off or damaged."); }

  std::string_view left_;
  bool oneByteCodes_ = false;
};

/// The value of a variable of the header: what stands two lines below its name.
std::string_view headerValue(std::string_view text, std::string_view name) {
  const std::size_t at = text.find(name);
  const std::size_t code = at == std::string_view::npos ? at : text.find('\n', at);
  const std::size_t value = code == std::string_view::npos ? code : text.find('\n', code + 1);
  if (value == std::string_view::npos) return {};
  return trimmed(text.substr(value + 1, text.find('\n', value + 1) - value - 1));
}

/// The name of a code page for iconv: "ANSI_1252" is CP1252, "dos850" CP850.
std::string encodingOf(std::string_view codePage) {
  const std::size_t digits = codePage.find_first_of("0123456789");
  constexpr std::string_view kWestern = "CP1252";
  if (digits == std::string_view::npos) return std::string(kWestern);
  return "CP" + std::string(codePage.substr(digits));
}

/// From one encoding into UTF-8.
class Converter {
 public:
  explicit Converter(const std::string& encoding) : handle_(iconv_open("UTF-8", encoding.c_str())) {
    if (handle_ == kNone) handle_ = iconv_open("UTF-8", "CP1252");
  }
  ~Converter() {
    if (handle_ != kNone) iconv_close(handle_);
  }
  Converter(const Converter&) = delete;
  Converter& operator=(const Converter&) = delete;

  std::string convert(std::string_view text) const {
    if (handle_ == kNone) return asUtf8(text);
    std::string out;
    std::string in(text);
    char* from = in.data();
    std::size_t left = in.size();
    while (left > 0) {
      std::array<char, 4096> room{};
      char* to = room.data();
      std::size_t free = room.size();
      const bool stuck = iconv(handle_, &from, &left, &to, &free) == static_cast<std::size_t>(-1) && errno != E2BIG;
      out.append(room.data(), to);
      if (!stuck) continue;
      out += kUnknownLetter;
      ++from;
      --left;
    }
    return out;
  }

 private:
  static inline const iconv_t kNone = reinterpret_cast<iconv_t>(-1);
  iconv_t handle_;
};

/// How many bytes of a letter in UTF-8 stand at the beginning; 0 when they are none (RFC 3629).
std::size_t letterAt(std::string_view text) {
  const auto byte = [&](std::size_t i) { return i < text.size() ? static_cast<unsigned char>(text[i]) : 0U; };
  const unsigned first = byte(0);
  if (first < 0x80) return 1;
  const std::size_t size = first >= 0xF0 ? 4 : first >= 0xE0 ? 3 : 2;
  if (first < 0xC2 || first > 0xF4) return 0;
  for (std::size_t i = 1; i < size; ++i) {
    if ((byte(i) & 0xC0) != 0x80) return 0;
  }
  const bool tooLong = (first == 0xE0 && byte(1) < 0xA0) || (first == 0xF0 && byte(1) < 0x90);
  const bool none = (first == 0xED && byte(1) > 0x9F) || (first == 0xF4 && byte(1) > 0x8F);
  return tooLong || none ? 0 : size;
}

bool isUtf8(std::string_view text) {
  while (!text.empty()) {
    const std::size_t size = letterAt(text);
    if (size == 0) return false;
    text.remove_prefix(size);
  }
  return true;
}

void addLetter(unsigned code, std::string& text) {
  const auto add = [&text](unsigned byte) { text += static_cast<char>(byte); };
  if (code < 0x80) {
    add(code);
  } else if (code < 0x800) {
    add(0xC0 | code >> 6);
    add(0x80 | (code & 0x3F));
  } else {
    add(0xE0 | code >> 12);
    add(0x80 | (code >> 6 & 0x3F));
    add(0x80 | (code & 0x3F));
  }
}

}  // namespace

std::string_view trimmed(std::string_view text) {
  const auto from = text.find_first_not_of(" \t\r");
  if (from == std::string_view::npos) return {};
  return text.substr(from, text.find_last_not_of(" \t\r") - from + 1);
}

std::string asUtf8(std::string_view text) {
  std::string out;
  while (!text.empty()) {
    const std::size_t size = letterAt(text);
    out += size == 0 ? kUnknownLetter : text.substr(0, size);
    text.remove_prefix(std::max<std::size_t>(size, 1));
  }
  return out;
}

std::string withDxfLetters(const std::string& text) {
  std::string out;
  for (std::size_t at = 0; at < text.size();) {
    unsigned code = 0;
    constexpr std::size_t kMark = 3;
    constexpr std::size_t kDigits = 4;
    const bool marked = text.compare(at, kMark, "\\U+") == 0 && at + kMark + kDigits <= text.size();
    const char* digits = text.data() + at + kMark;
    if (marked && std::from_chars(digits, digits + kDigits, code, 16).ptr == digits + kDigits && code >= 0x20 &&
        (code < 0xD800 || code > 0xDFFF)) {
      addLetter(code, out);
      at += kMark + kDigits;
    } else {
      out += text[at++];
    }
  }
  return out;
}

std::string inDxfLetters(const std::string& utf8) {
  std::string out;
  for (std::size_t at = 0; at < utf8.size();) {
    const auto first = static_cast<unsigned char>(utf8[at]);
    const std::size_t length = first < 0x80 ? 1 : first < 0xE0 ? 2 : first < 0xF0 ? 3 : 4;
    if (length == 1) {
      out += utf8[at++];
      continue;
    }
    unsigned code = length == 2 ? first & 0x1FU : length == 3 ? first & 0x0FU : 0;
    for (std::size_t i = 1; i < length && at + i < utf8.size(); ++i)
      code = code << 6U | (static_cast<unsigned char>(utf8[at + i]) & 0x3FU);
    std::array<char, 16> text{};
    std::snprintf(text.data(), text.size(), "\\U+%04X", code);
    out += length == 4 ? "_" : text.data();
    at += length;
  }
  return out;
}

std::string dxfText(std::string_view bytes) {
  std::string text = bytes.starts_with(kBinaryMark) ? BinaryReader(bytes).text() : std::string(bytes);
  if (isUtf8(text)) return text;
  // From 2007 on (AC1021) a DXF is in UTF-8.
  constexpr std::string_view kFirstInUtf8 = "AC1021";
  const std::string_view version = headerValue(text, "$ACADVER");
  if (version >= kFirstInUtf8) return asUtf8(text);
  return Converter(encodingOf(headerValue(text, "$DWGCODEPAGE"))).convert(text);
}

}  // namespace rim::io::dxf
