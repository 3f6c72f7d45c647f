#pragma once

#include <QFrame>
#include <optional>

#include "app/preferences.h"
#include "core/drawing/drawing.h"

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace rim::app {

class LengthField;

/// What the gauge shows. Without a drawing it is empty.
struct Measures {
  Counts counts;
  Box box;                             ///< mm, round all outlines
  bool provisional = false;            ///< a new trace is on its way
  std::size_t penLines = 0;            ///< of the open ones those that a pen drew
  std::optional<std::size_t> doubles;  ///< lines drawn twice; none: not inspected yet
};

/// The strip below the bench: what the outlines come to, and their size, which can be typed.
class Gauge : public QFrame {
  Q_OBJECT

 public:
  explicit Gauge(QWidget* parent = nullptr);
  void show(const std::optional<Measures>& measures, Unit unit);

 signals:
  void widthEntered(double millimetres);
  void heightEntered(double millimetres);
  void refused(const QString& sentence);
  void unitToggled();

 private:
  QLabel* addFigure(QHBoxLayout* row, const QString& name, const QString& tip);
  LengthField* addLength(QHBoxLayout* row, const QString& name, const QString& tip);

  QLabel* outlines_;
  QLabel* closed_;
  QLabel* open_;
  QLabel* double_;
  QLabel* nodes_;
  LengthField* width_;
  LengthField* height_;
  QPushButton* unit_;
};

}  // namespace rim::app
