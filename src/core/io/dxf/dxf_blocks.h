#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"

/// What a DXF holds, as it is told entity by entity, and how its blocks unfold into one drawing.
namespace rim::io::dxf {

struct DxfOutline {
  Path path;
  std::string layer;
};

struct Insert {
  std::string block;
  std::string layer;
  Point at;
  double scaleX = 1, scaleY = 1;
  double degrees = 0;
  int columns = 1, rows = 1;
  double columnStep = 0, rowStep = 0;
  bool turnedOver = false;
  int line = 0;
};

/// What a block, or the model space, holds. Numbers are the file's own.
struct Block {
  Point base;
  std::vector<DxfOutline> outlines;
  std::vector<Insert> inserts;
};

struct LayerState {
  Layer look;
  bool hidden = false;
};

/// Names of layers and blocks are the same whatever the case of their letters (DXF reference, symbol table names).
struct WithoutCase {
  bool operator()(const std::string& a, const std::string& b) const;
};

/// Everything that dxflib tells of a file.
struct Contents {
  Block model;
  std::map<std::string, Block, WithoutCase> blocks;
  std::map<std::string, LayerState, WithoutCase> layers;
  int unitCode = 0;
  std::size_t onPaper = 0;
  std::size_t tilted = 0;
  std::map<std::string, std::size_t> leftOut;
};

/// Unfolds all blocks of the model space into the drawing, `mmPerUnit` large; ellipses of blocks that are not scaled
/// evenly become cubics within `toleranceMm`. Returns how many outlines were left out for lying on layers that are off
/// or frozen. Throws InputError, beginning with the line where there is one: a block within itself or not there, too
/// many segments, places too far away.
std::size_t unfold(const Contents& contents, double mmPerUnit, double toleranceMm, Drawing& drawing);

}  // namespace rim::io::dxf
