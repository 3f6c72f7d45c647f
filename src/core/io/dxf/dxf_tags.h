#pragma once

#include <cstdint>
#include <string>
#include <string_view>

#include "core/geometry/point.h"

namespace rim::io::dxf {

/// The text of a DXF while it is written: pairs of a group code and a value, each on its own line, and the handles that
/// its objects are known by (DXF reference, "Group Codes", "Object and Entity Codes").
class DxfTags {
 public:
  using Handle = std::uint32_t;

  /// Numbers get so many decimals at most, and none that say nothing.
  explicit DxfTags(int decimals) : decimals_(decimals) {}

  void text(int code, std::string_view value);
  void integer(int code, long value);
  void real(int code, double value);
  /// With more decimals, for what no length is: bulges and ratios.
  void ratio(int code, double value);
  /// A point, x at `code`, y at `code` + 10, and z = 0 at `code` + 20 unless it is `flat`.
  void point(int code, Point p, bool flat = false);
  void handle(int code, Handle handle);

  /// A handle that no other object of the file has.
  Handle mint() { return next_++; }
  /// The next one that would be minted: the file's $HANDSEED.
  Handle seed() const { return next_; }

  const std::string& all() const { return text_; }
  void add(const DxfTags& other) { text_ += other.text_; }

 private:
  void number(int code, double value, int decimals);

  std::string text_;
  int decimals_;
  Handle next_ = 1;
};

}  // namespace rim::io::dxf
