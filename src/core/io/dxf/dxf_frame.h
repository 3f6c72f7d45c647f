#pragma once

#include <string>
#include <vector>

#include "core/io/dxf/dxf_layers.h"
#include "core/io/dxf/dxf_tags.h"

namespace rim::io::dxf {

/// What stands round the entities of a DXF 2000 (AC1015): tables, blocks and objects that readers ask for even when
/// nothing in the drawing needs them, each with its handle and that of its owner. Written from the published DXF
/// reference of that release; of R12 (AC1009) from that of Release 12.
struct DxfFrame {
  DxfTags::Handle modelSpace;  ///< the owner of all entities

  /// Takes the handles of all that it will write.
  explicit DxfFrame(DxfTags& tags);

  void tables(DxfTags& tags, const std::vector<DxfLayer>& layers) const;
  void blocks(DxfTags& tags) const;
  void objects(DxfTags& tags) const;

 private:
  DxfTags::Handle paperSpace_, dictionary_, groups_, layouts_, modelLayout_, paperLayout_;
};

/// The tables of an R12: line types and layers.
void tablesOfR12(DxfTags& tags, const std::vector<DxfLayer>& layers);

/// Its blocks: the two spaces, empty. Some readers put entities into the last block that they met, and lose them all
/// where there was none.
void blocksOfR12(DxfTags& tags);

/// "SECTION" and its name.
void beginSection(DxfTags& tags, const char* name);
void endSection(DxfTags& tags);

}  // namespace rim::io::dxf
