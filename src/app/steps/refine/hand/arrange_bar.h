#pragma once

#include <QWidget>
#include <functional>

#include "app/preferences.h"
#include "core/refine/edit/chosen.h"

class QComboBox;
class QMenu;

namespace rim::app {

class LengthField;

/// Where the chosen outlines lie and how large they are, to be typed, and what is done to them as one: lined up,
/// spaced, turned, mirrored, combined. Works on outlines in mm.
class ArrangeBar : public QWidget {
  Q_OBJECT

 public:
  explicit ArrangeBar(QWidget* parent = nullptr);

  /// The outlines that are chosen, mm.
  void show(refine::SomePaths chosen, Unit unit);
  QMenu& menu() const { return *menu_; }

 signals:
  /// What becomes of each of them, mm.
  void arranged(const QString& name, const std::vector<rim::refine::SomePaths>& became);
  void refused(const QString& sentence);

 private:
  void buildFields();
  void buildMenu();
  Hold hold() const;
  /// Does one thing to all; what goes wrong is told.
  void doAll(const QString& name, const std::function<refine::SomePaths(const refine::SomePaths&)>& what);
  void combine(const QString& name, AreaRule rule);

  refine::SomePaths chosen_;
  Unit unit_ = Unit::Millimetre;
  QComboBox* hold_;
  LengthField* x_;
  LengthField* y_;
  LengthField* width_;
  LengthField* height_;
  QMenu* menu_;
};

}  // namespace rim::app
