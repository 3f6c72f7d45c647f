#include "core/io/job/path_text.h"

#include <array>
#include <charconv>
#include <cmath>

#include "core/error.h"
#include "core/io/common/reading.h"

namespace rim::io {
namespace {

constexpr double kMostBulge = 1000;

void add(std::string& text, double value) {
  std::array<char, 32> digits{};
  if (!text.empty()) text += ' ';
  text.append(digits.data(), std::to_chars(digits.data(), digits.data() + digits.size(), value).ptr);
}

void add(std::string& text, Point p) {
  add(text, p.x);
  add(text, p.y);
}

}  // namespace

std::string textOf(const Path& path) {
  std::string text;
  add(text, path.start);
  for (const Segment& s : path.segments) {
    text += s.kind == SegmentKind::Line ? " L" : s.kind == SegmentKind::Arc ? " A" : " C";
    if (s.kind == SegmentKind::Cubic) {
      add(text, s.handle1);
      add(text, s.handle2);
    }
    add(text, s.end);
    if (s.kind == SegmentKind::Arc) add(text, s.bulge);
  }
  return text;
}

namespace {

[[noreturn]] void failPath() { throw InputError("an outline in the job is damaged."); }

/// Takes an outline's text apart.
class Reader {
 public:
  explicit Reader(std::string_view text) : text_(text) {}

  Path path(bool closed) {
    Path path{place(), {}, closed};
    while (!text_.empty()) path.segments.push_back(segment());
    if (closed && (path.segments.empty() || !(path.segments.back().end == path.start))) failPath();
    return path;
  }

 private:
  Segment segment() {
    const std::string_view kind = nextWord();
    if (kind == "L") return Segment::line(place());
    if (kind == "A") {
      const Point end = place();
      return Segment::arc(end, number(kMostBulge));
    }
    if (kind != "C") failPath();
    const Point handle1 = place();
    const Point handle2 = place();
    return Segment::cubic(handle1, handle2, place());
  }

  Point place() {
    const double x = number(kFarthestMm);
    return {x, number(kFarthestMm)};
  }

  double number(double most) {
    const std::string_view digits = nextWord();
    double value = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (error != std::errc() || end != digits.data() + digits.size() || !(std::abs(value) <= most)) failPath();
    return value;
  }

  std::string_view nextWord() {
    const auto end = text_.find(' ');
    const std::string_view own = text_.substr(0, end);
    text_ = end == std::string_view::npos ? std::string_view() : text_.substr(end + 1);
    return own;
  }

  std::string_view text_;
};

}  // namespace

Path pathFrom(std::string_view text, bool closed) { return Reader(text).path(closed); }

}  // namespace rim::io
