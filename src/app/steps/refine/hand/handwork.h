#pragma once

#include <QWidget>
#include <array>
#include <set>

#include "app/preferences.h"
#include "app/steps/refine/hand/hand_actions.h"
#include "app/steps/refine/hand/hand_tool.h"

class QLabel;
class QMenu;
class QMimeData;

namespace rim::app {

class ArrangeBar;
class NodeTool;
class OffsetBar;
class ChainTool;
class MirrorTool;
class OffsetTool;
class SelectTool;
class Session;
class ShapeBar;
class Snapping;
struct RefineActions;

/// The part of the Refine panel where outlines are taken hold of: which tool is on the bench, what is chosen, and what
/// can be done to it.
class Handwork : public QWidget {
  Q_OBJECT

 public:
  Handwork(Session& session, const RefineActions& actions, QWidget* parent = nullptr);

  /// Follows the session.
  void show(Unit unit);
  /// What places are brought to.
  Snapping& snapping() const { return *snapping_; }

  /// The tool that is chosen now.
  BenchTool& tool() const;
  void take(Hand hand);
  /// What can be done to what is chosen.
  QMenu& menu() const { return *menu_; }
  SelectTool& selecting() const { return *select_; }
  NodeTool& noding() const { return *nodes_; }

  /// The outlines that are chosen, as steps name them.
  std::vector<OutlineMark> chosenMarks() const;

  /// Their ids.
  std::set<OutlineId> chosenIds() const;

  /// Moves what is chosen so that the middle of its box comes to a place, mm.
  void bringChosenTo(Point middleMm);

  /// Puts outlines of an SVG into the drawing, chosen; false, and nothing done, when these are none.
  bool paste(const QMimeData* content);
  /// The same of an SVG; `middle` (upright px): where the middle of its box comes to, else it lies where it says.
  void putIn(const QByteArray& svg, const std::optional<Point>& middle = {});

  /// How far one step of the arrow keys moves what is chosen, mm.
  void setNudge(double mm);

 signals:
  /// The drawing shall become so many times as large.
  void sizedBy(double factor);
  void toolChanged();
  void chosenChanged();
  void refused(const QString& sentence);

 private:
  void buildTools();
  void buildButtons();
  void buildMenu();
  void connectNodes();
  void showAllowed();
  void removeChosen();
  void moveChosen(Point by);
  void groupChosen(bool together);
  void duplicateChosen();
  void copyChosen();
  void arrangeChosen(const QString& name, const Drawing& became);
  void takeOutlines(const std::shared_ptr<const Drawing>& outlines);
  void followChosen();
  /// Puts new outlines into the drawing and chooses them as soon as they are there.
  void addNew(const QString& name, const std::vector<refine::ByHand::One>& changes);
  void change(const QString& name, const std::vector<refine::ByHand::One>& changes, const QString& mergeKey);
  /// The outlines that are chosen, upright px; none while they are being worked out.
  std::vector<Outline> chosenOutlines() const;
  Drawing chosenInMm() const;

  Session& session_;
  const RefineActions& actions_;
  SelectTool* select_;
  NodeTool* nodes_;
  Snapping* snapping_;
  OffsetTool* offset_;
  MirrorTool* mirror_;
  ChainTool* chain_;
  std::array<HandTool*, 12> tools_{};  ///< in the order of enum Hand; the last draws lines from click to click
  QLabel* chosen_;
  QWidget* forOutlines_;
  QWidget* forNodes_;
  ArrangeBar* arrange_;
  ShapeBar* shapes_;
  OffsetBar* offsets_;
  QMenu* menu_;
  Unit unit_ = Unit::Millimetre;
  Point owed_;                                ///< what is chosen is still to be moved by, upright px
  std::optional<std::set<OutlineId>> fresh_;  ///< the outlines that were there before some were added
};

}  // namespace rim::app
