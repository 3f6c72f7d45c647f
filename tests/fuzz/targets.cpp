#include "fuzz/targets.h"

#include <cmath>
#include <cstdlib>
#include <string_view>

#include "core/error.h"
#include "core/io/dxf/read_dxf.h"
#include "core/io/svg/read_svg.h"
#include "core/mend/decide.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/mend.h"

namespace rim::test {
namespace {

void keepsItsPromise(const Drawing& drawing) {
  for (const Path& path : pathsOf(drawing)) {
    bool finite = std::isfinite(path.start.x) && std::isfinite(path.start.y);
    for (const Segment& s : path.segments) {
      finite = finite && std::isfinite(s.end.x) && std::isfinite(s.end.y) && std::isfinite(s.bulge) &&
               std::isfinite(s.handle1.x) && std::isfinite(s.handle1.y) && std::isfinite(s.handle2.x) &&
               std::isfinite(s.handle2.y);
    }
    const bool closes = !path.closed || path.segments.empty() || path.segments.back().end == path.start;
    if (!finite || !closes) std::abort();
  }
}

/// Large drawings are read, but mending them would make every run slow.
void inspectSmall(const Drawing& drawing) {
  constexpr std::size_t kMostNodes = 300;
  if (countsOf(pathsOf(drawing)).nodes <= kMostNodes) mend::inspect(drawing, {});
}

template <typename Read>
void fuzzReader(const std::uint8_t* data, std::size_t size, Read read) {
  try {
    const io::ReadResult result = read(std::string_view(reinterpret_cast<const char*>(data), size));
    keepsItsPromise(result.drawing);
    inspectSmall(result.drawing);
  } catch (const InputError&) {
    return;
  }
}

}  // namespace

void fuzzSvg(const std::uint8_t* data, std::size_t size) {
  fuzzReader(data, size, [](std::string_view bytes) { return io::svg::readSvg(bytes); });
}

void fuzzDxf(const std::uint8_t* data, std::size_t size) {
  fuzzReader(data, size, [](std::string_view bytes) { return io::dxf::readDxf(bytes); });
}

void fuzzMend(const std::uint8_t* data, std::size_t size) {
  constexpr std::size_t kMostBytes = 120;
  size = std::min(size, kMostBytes);
  std::size_t at = 0;
  const auto byte = [&] { return at < size ? data[at++] : std::uint8_t{0}; };
  // A grid of quarter millimetres makes ends meet, lines lie on each other and corners coincide.
  const auto place = [&] {
    constexpr double kGridMm = 0.25;
    const double x = byte() % 64;
    return Point{x * kGridMm, (byte() % 64) * kGridMm};
  };
  Drawing drawing;
  while (at < size) {
    Path path{place(), {}, byte() % 4 == 0};
    for (int n = 1 + byte() % 5; n > 0; --n) {
      const int kind = byte() % 4;
      const Point end = place();
      if (kind == 1 && !(end == (path.segments.empty() ? path.start : path.segments.back().end))) {
        path.segments.push_back(Segment::arc(end, (byte() - 128) / 100.0));
      } else if (kind == 2) {
        const Point handle = place();
        path.segments.push_back(Segment::cubic(handle, place(), end));
      } else {
        path.segments.push_back(Segment::line(end));
      }
    }
    if (path.closed && !(path.segments.back().end == path.start)) path.segments.push_back(Segment::line(path.start));
    add(drawing, std::move(path));
  }
  mend::MendSettings settings;
  settings.doubles = static_cast<mend::DoubleRule>(size % 5);
  settings.simplifyMm = size % 3 == 0 ? 0.1 : 0;
  keepsItsPromise(mend::mended(drawing, settings).drawing);
  keepsItsPromise(mend::repairedSafely(drawing, settings));
}

}  // namespace rim::test
