#pragma once

#include <QWidget>

#include "core/refine/combine/offset.h"

class QCheckBox;
class QComboBox;

namespace rim::app {

/// How corners are opened beside an outline, and whether what is drawn there takes its place.
class OffsetBar : public QWidget {
  Q_OBJECT

 public:
  explicit OffsetBar(QWidget* parent = nullptr);

 signals:
  void wished(rim::refine::Joins joins, bool instead);

 private:
  void take();

  QComboBox* joins_;
  QCheckBox* instead_;
};

}  // namespace rim::app
