#pragma once

#include <QWidget>
#include <memory>
#include <set>

#include "app/newest_worker.h"
#include "app/preferences.h"
#include "app/repair_preview.h"
#include "core/drawing/drawing.h"
#include "core/refine/step.h"

class QLabel;
class QPushButton;
class QSlider;

namespace rim::app {

/// Fewer nodes: a slider says how far an outline may be left for that. What comes of it shows on the bench, counted,
/// before it is taken; of the outlines that are chosen, or of all.
class SimplifyPart : public QWidget {
  Q_OBJECT

 public:
  explicit SimplifyPart(QWidget* parent = nullptr);
  ~SimplifyPart() override;

  /// The outlines as they are now, upright px; null: none, or they are being worked out.
  void show(std::shared_ptr<const Drawing> outlines, double mmPerPixel, Unit unit);
  void setChosen(std::set<OutlineId> chosen);

  /// How far the slider lets outlines be left, mm; 0: it stands at its beginning.
  double withinMm() const;

 signals:
  /// Nothing: the slider stands at its beginning.
  void previewed(const rim::app::RepairPreview& preview);
  /// All outlines shall be made simpler.
  void allWanted(const rim::refine::Simplify& step);
  /// Only these, with what came of them.
  void made(const QString& name, const std::vector<rim::refine::ByHand::One>& changes);

 private:
  /// What came of it.
  struct Result {
    std::size_t before = 0;  ///< nodes
    std::size_t after = 0;
    double mostMm = 0;
    RepairPreview preview;
    std::vector<refine::ByHand::One> changes;
  };

  void look();
  void tell();
  void take();
  void reset();

  std::shared_ptr<const Drawing> outlines_;
  double mmPerPixel_ = 1;
  Unit unit_ = Unit::Millimetre;
  std::set<OutlineId> chosen_;
  std::shared_ptr<const Result> result_;  ///< null while it is worked out
  QSlider* slider_;
  QLabel* told_;
  QPushButton* take_;
  NewestWorker working_;
};

}  // namespace rim::app
