#pragma once

#include "core/io/common/zip.h"

namespace rim::test {

/// Parts that were read, to be written again; they must outlive what is given back.
inline std::vector<ZipPart> partsToWrite(const ZipParts& parts) {
  std::vector<ZipPart> list;
  for (const auto& [name, bytes] : parts) list.push_back({name, bytes, false});
  return list;
}

}  // namespace rim::test
