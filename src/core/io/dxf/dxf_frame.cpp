#include "core/io/dxf/dxf_frame.h"

#include "core/io/dxf/dxf_text.h"

namespace rim::io::dxf {
namespace {

using Handle = DxfTags::Handle;

constexpr Handle kNobody = 0;
constexpr int kBlack = 7;
constexpr const char* kModelSpace = "*Model_Space";
constexpr const char* kPaperSpace = "*Paper_Space";

/// A table and its records.
class Table {
 public:
  Table(DxfTags& tags, const char* name, std::size_t records) : tags_(tags), own_(tags.mint()) {
    tags.text(0, "TABLE");
    tags.text(2, name);
    tags.handle(5, own_);
    tags.handle(330, kNobody);
    tags.text(100, "AcDbSymbolTable");
    tags.integer(70, static_cast<long>(records));
  }
  ~Table() { tags_.text(0, "ENDTAB"); }
  Table(const Table&) = delete;
  Table& operator=(const Table&) = delete;

  /// Begins a record. `code` is that of its handle, which is 105 for dimension styles.
  void record(const char* type, const char* subclass, std::string_view name, Handle handle, int code = 5) {
    tags_.text(0, type);
    tags_.handle(code, handle);
    tags_.handle(330, own_);
    tags_.text(100, "AcDbSymbolTableRecord");
    tags_.text(100, subclass);
    tags_.text(2, name);
  }

 private:
  DxfTags& tags_;
  Handle own_;
};

void viewport(DxfTags& tags) {
  Table table(tags, "VPORT", 1);
  table.record("VPORT", "AcDbViewportTableRecord", "*Active", tags.mint());
  tags.integer(70, 0);
  tags.point(10, {0, 0}, true);
  tags.point(11, {1, 1}, true);
  tags.point(12, {0, 0}, true);
  tags.point(13, {0, 0}, true);
  tags.point(14, {10, 10}, true);
  tags.point(15, {10, 10}, true);
  tags.point(16, {0, 0}, true);
  tags.real(36, 1);  // it is looked at from above
  tags.point(17, {0, 0});
  constexpr double kHeight = 1000;
  tags.real(40, kHeight);
  tags.real(41, 1.6);
  tags.real(42, 50);
}

void lineTypes(DxfTags& tags) {
  Table table(tags, "LTYPE", 3);
  for (const char* name : {"ByBlock", "ByLayer", "Continuous"}) {
    table.record("LTYPE", "AcDbLinetypeTableRecord", name, tags.mint());
    tags.integer(70, 0);
    tags.text(3, "");
    tags.integer(72, 65);
    tags.integer(73, 0);
    tags.real(40, 0);
  }
}

void layer(DxfTags& tags, const DxfLayer& own) {
  tags.integer(70, 0);
  tags.integer(62, own.colour);
  if (own.trueColour >= 0) tags.integer(420, own.trueColour);
  tags.text(6, "Continuous");
}

void layerTable(DxfTags& tags, const std::vector<DxfLayer>& layers) {
  Table table(tags, "LAYER", layers.size() + 1);
  const auto add = [&](const DxfLayer& own) {
    table.record("LAYER", "AcDbLayerTableRecord", inDxfLetters(own.name), tags.mint());
    layer(tags, own);
  };
  add({"0", kBlack, -1});
  for (const DxfLayer& own : layers) add(own);
}

void styles(DxfTags& tags) {
  Table table(tags, "STYLE", 1);
  table.record("STYLE", "AcDbTextStyleTableRecord", "Standard", tags.mint());
  tags.integer(70, 0);
  tags.real(40, 0);
  tags.real(41, 1);
  tags.real(50, 0);
  tags.integer(71, 0);
  tags.real(42, 2.5);
  tags.text(3, "txt");
  tags.text(4, "");
}

void dimensionStyles(DxfTags& tags) {
  Table table(tags, "DIMSTYLE", 1);
  tags.text(100, "AcDbDimStyleTable");
  constexpr int kHandleOfDimensionStyle = 105;
  table.record("DIMSTYLE", "AcDbDimStyleTableRecord", "Standard", tags.mint(), kHandleOfDimensionStyle);
  tags.integer(70, 0);
}

/// A layout's dictionary entry stands for paper of no particular size.
void layout(DxfTags& tags, Handle own, Handle owner, const char* name, int order, Handle block) {
  tags.text(0, "LAYOUT");
  tags.handle(5, own);
  tags.handle(330, owner);
  tags.text(100, "AcDbPlotSettings");
  for (const int code : {1, 2, 4, 6}) tags.text(code, "");
  for (int code = 40; code <= 49; ++code) tags.real(code, 0);
  tags.real(140, 0);
  tags.real(141, 0);
  tags.real(142, 1);
  tags.real(143, 1);
  constexpr int kModelType = 1024;
  constexpr int kPlainPaper = 688;
  tags.integer(70, order == 0 ? kModelType + kPlainPaper : kPlainPaper);
  tags.integer(72, 1);
  tags.integer(73, 0);
  tags.integer(74, 5);
  tags.text(7, "");
  tags.integer(75, 16);
  tags.real(147, 1);
  tags.real(148, 0);
  tags.real(149, 0);
  tags.text(100, "AcDbLayout");
  tags.text(1, name);
  tags.integer(70, 1);
  tags.integer(71, order);
  tags.point(10, {0, 0}, true);
  tags.point(11, {420, 297}, true);
  tags.point(12, {0, 0});
  tags.point(14, {0, 0});
  tags.point(15, {0, 0});
  tags.real(146, 0);
  tags.point(13, {0, 0});
  tags.point(16, {1, 0});
  tags.point(17, {0, 1});
  tags.integer(76, 0);
  tags.handle(330, block);
}

void beginDictionary(DxfTags& tags, Handle own, Handle owner) {
  tags.text(0, "DICTIONARY");
  tags.handle(5, own);
  tags.handle(330, owner);
  tags.text(100, "AcDbDictionary");
  tags.integer(281, 1);
}

void entry(DxfTags& tags, const char* name, Handle of) {
  tags.text(3, name);
  tags.handle(350, of);
}

}  // namespace

DxfFrame::DxfFrame(DxfTags& tags)
    : modelSpace(tags.mint()),
      paperSpace_(tags.mint()),
      dictionary_(tags.mint()),
      groups_(tags.mint()),
      layouts_(tags.mint()),
      modelLayout_(tags.mint()),
      paperLayout_(tags.mint()) {}

void DxfFrame::tables(DxfTags& tags, const std::vector<DxfLayer>& layers) const {
  beginSection(tags, "TABLES");
  viewport(tags);
  lineTypes(tags);
  layerTable(tags, layers);
  styles(tags);
  { const Table empty(tags, "VIEW", 0); }
  { const Table empty(tags, "UCS", 0); }
  {
    Table table(tags, "APPID", 1);
    table.record("APPID", "AcDbRegAppTableRecord", "ACAD", tags.mint());
    tags.integer(70, 0);
  }
  dimensionStyles(tags);
  {
    Table table(tags, "BLOCK_RECORD", 2);
    table.record("BLOCK_RECORD", "AcDbBlockTableRecord", kModelSpace, modelSpace);
    tags.handle(340, modelLayout_);
    table.record("BLOCK_RECORD", "AcDbBlockTableRecord", kPaperSpace, paperSpace_);
    tags.handle(340, paperLayout_);
  }
  endSection(tags);
}

void DxfFrame::blocks(DxfTags& tags) const {
  beginSection(tags, "BLOCKS");
  for (const bool model : {true, false}) {
    const char* name = model ? kModelSpace : kPaperSpace;
    const auto begin = [&](const char* type, const char* subclass) {
      tags.text(0, type);
      tags.handle(5, tags.mint());
      tags.handle(330, model ? modelSpace : paperSpace_);
      tags.text(100, "AcDbEntity");
      if (!model) tags.integer(67, 1);
      tags.text(8, "0");
      tags.text(100, subclass);
    };
    begin("BLOCK", "AcDbBlockBegin");
    tags.text(2, name);
    tags.integer(70, 0);
    tags.point(10, {0, 0});
    tags.text(3, name);
    tags.text(1, "");
    begin("ENDBLK", "AcDbBlockEnd");
  }
  endSection(tags);
}

void DxfFrame::objects(DxfTags& tags) const {
  beginSection(tags, "OBJECTS");
  beginDictionary(tags, dictionary_, kNobody);
  entry(tags, "ACAD_GROUP", groups_);
  entry(tags, "ACAD_LAYOUT", layouts_);
  beginDictionary(tags, groups_, dictionary_);
  beginDictionary(tags, layouts_, dictionary_);
  entry(tags, "Layout1", paperLayout_);
  entry(tags, "Model", modelLayout_);
  layout(tags, modelLayout_, layouts_, "Model", 0, modelSpace);
  layout(tags, paperLayout_, layouts_, "Layout1", 1, paperSpace_);
  endSection(tags);
}

void tablesOfR12(DxfTags& tags, const std::vector<DxfLayer>& layers) {
  beginSection(tags, "TABLES");
  const auto begin = [&tags](const char* name, std::size_t records) {
    tags.text(0, "TABLE");
    tags.text(2, name);
    tags.integer(70, static_cast<long>(records));
  };
  begin("LTYPE", 1);
  tags.text(0, "LTYPE");
  tags.text(2, "CONTINUOUS");
  tags.integer(70, 0);
  tags.text(3, "Solid line");
  tags.integer(72, 65);
  tags.integer(73, 0);
  tags.real(40, 0);
  tags.text(0, "ENDTAB");
  begin("LAYER", layers.size() + 1);
  const auto add = [&tags](const DxfLayer& own) {
    tags.text(0, "LAYER");
    tags.text(2, own.name);
    tags.integer(70, 0);
    tags.integer(62, own.colour);
    tags.text(6, "CONTINUOUS");
  };
  add({"0", kBlack, -1});
  for (const DxfLayer& own : layers) add(own);
  tags.text(0, "ENDTAB");
  endSection(tags);
}

void blocksOfR12(DxfTags& tags) {
  beginSection(tags, "BLOCKS");
  for (const char* name : {"$PAPER_SPACE", "$MODEL_SPACE"}) {
    tags.text(0, "BLOCK");
    tags.text(8, "0");
    tags.text(2, name);
    tags.integer(70, 0);
    tags.point(10, {0, 0});
    tags.text(3, name);
    tags.text(1, "");
    tags.text(0, "ENDBLK");
    tags.text(8, "0");
  }
  endSection(tags);
}

void beginSection(DxfTags& tags, const char* name) {
  tags.text(0, "SECTION");
  tags.text(2, name);
}

void endSection(DxfTags& tags) { tags.text(0, "ENDSEC"); }

}  // namespace rim::io::dxf
