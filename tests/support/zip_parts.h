#pragma once

#include "core/io/common/zip.h"

namespace rim::test {

/// Parts that were read, to be written again; they must outlive what is given back.
inline std::vector<io::ZipPart> partsToWrite(const io::ZipParts& parts) {
  std::vector<io::ZipPart> list;
  for (const auto& [name, bytes] : parts) list.push_back({name, bytes, false});
  return list;
}

}  // namespace rim::test
