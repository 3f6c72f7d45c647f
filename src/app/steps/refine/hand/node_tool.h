#pragma once

#include <set>

#include "app/steps/refine/hand/hand_tool.h"
#include "app/steps/refine/hand/snapping.h"
#include "core/geometry/path_place.h"
#include "core/refine/edit/nodes.h"

namespace rim::app {

/// Takes hold of the nodes of one outline: a click on its border chooses the outline, then nodes, segments and handles
/// can be chosen and dragged; a double click on a segment puts a node there. What it made is at once what it works on,
/// while the drawing is still being worked out.
class NodeTool : public HandTool {
  Q_OBJECT

 public:
  using HandTool::HandTool;

  void setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) override;
  /// What a node that is dragged comes to on other outlines; must outlive the tool.
  void setSnapping(const Snapping* snapping) { snapping_ = snapping; }
  void paint(QPainter& painter, const ToolView& view) const override;
  void press(Point place, const ToolView& view) override;
  void doublePress(Point place, const ToolView& view) override;
  void move(Point place, const ToolView& view) override;
  void release(Point place, const ToolView& view) override;
  bool nudge(Point step) override;
  bool chooseNext() override;
  QString chosenText() const override;
  QString hint() const override;
  bool leave() override;

  /// What is taken hold of; none: nothing.
  const std::optional<OutlineId>& outline() const { return active_; }
  const Path& path() const { return *path_; }
  const std::set<std::size_t>& nodes() const { return nodes_; }
  /// Segments that are chosen: the one that was clicked, or those between chosen nodes.
  std::set<std::size_t> segments() const;

  void takeHold(OutlineId outline, std::set<std::size_t> nodes = {});
  void chooseAllNodes();

  void deleteNodes();
  void deleteSegments();
  void makeSegments(SegmentKind kind);
  void makeSmooth();
  void makeCorner();
  void part();
  void close();
  void turnRound();
  void startHere();
  void lineUp(refine::LineUp how);
  void spread();

 signals:
  void chosenChanged();

 private:
  enum class Hold { Nothing, Nodes, Handle, Segment, Box };
  /// A handle of a cubic.
  struct Handle {
    std::size_t segment = 0;
    bool first = true;
  };
  void choose(std::set<std::size_t> nodes, std::optional<std::size_t> segment = {});
  /// Segments whose handles show.
  std::set<std::size_t> handled() const;
  std::optional<Handle> handleAt(Point place, double reach) const;
  std::optional<std::size_t> nodeNear(Point place, double reach) const;
  std::set<std::size_t> nodesWithin(const Box& box) const;
  /// The path as the drag of this moment would make it.
  Path dragged() const;
  void become(const QString& name, std::vector<Path> paths, const QString& mergeKey = {});
  void becomeOne(const QString& name, Path path) { become(name, {std::move(path)}); }
  bool nothingHeld(bool need);
  void paintHandles(QPainter& painter, const ToolView& view, const Path& path) const;
  void paintNodes(QPainter& painter, const ToolView& view, const Path& path) const;
  void paintDrag(QPainter& painter, const ToolView& view) const;

  std::optional<OutlineId> active_;
  std::shared_ptr<const Path> path_ = std::make_shared<const Path>();
  std::set<std::size_t> nodes_;
  std::optional<std::size_t> segment_;
  Hold hold_ = Hold::Nothing;
  Handle handle_;
  PathPlace held_;
  Point pressed_;
  Point now_;
  bool moved_ = false;
  const Snapping* snapping_ = nullptr;
  std::optional<refine::Snapped> snap_;  ///< what is dragged comes to this
  QString said_;                         ///< what came of the last change
};

}  // namespace rim::app
