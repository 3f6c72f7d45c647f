#include "core/io/stl.h"

#include <bit>
#include <cmath>
#include <cstring>
#include <fstream>

#include "core/error.h"
#include "core/io/common/safe_file.h"

namespace rim::io {
namespace {

static_assert(std::endian::native == std::endian::little, "STL is written as it lies in memory");

void put(std::string& bytes, const auto& value) {
  char raw[sizeof value];
  std::memcpy(raw, &value, sizeof value);
  bytes.append(raw, sizeof value);
}

void put(std::string& bytes, const sketch::Point3& p) {
  for (const double v : {p.x, p.y, p.z}) put(bytes, static_cast<float>(v));
}

sketch::Point3 normalOf(const sketch::Point3& a, const sketch::Point3& b, const sketch::Point3& c) {
  const sketch::Point3 u{b.x - a.x, b.y - a.y, b.z - a.z};
  const sketch::Point3 v{c.x - a.x, c.y - a.y, c.z - a.z};
  const sketch::Point3 n{u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x};
  const double length = std::hypot(n.x, n.y, n.z);
  return length > 0 ? sketch::Point3{n.x / length, n.y / length, n.z / length} : sketch::Point3{0, 0, 1};
}

}  // namespace

void writeStl(const sketch::Solid& solid, const std::filesystem::path& file) {
  std::string bytes = "Snug Rim, millimetres";
  constexpr std::size_t kHeader = 80;
  bytes.resize(kHeader, ' ');
  put(bytes, static_cast<std::uint32_t>(solid.triangles.size()));
  for (const auto& [i, j, k] : solid.triangles) {
    const sketch::Point3& a = solid.points[i];
    const sketch::Point3& b = solid.points[j];
    const sketch::Point3& c = solid.points[k];
    for (const sketch::Point3& p : {normalOf(a, b, c), a, b, c}) put(bytes, p);
    put(bytes, std::uint16_t{0});
  }
  writeBeside(file, [&bytes](const std::filesystem::path& beside) {
    std::ofstream out(beside, std::ios::binary);
    if (!(out << bytes << std::flush)) throw WriteError("the solid could not be written: the disk may be full.");
  });
}

}  // namespace rim::io
