#pragma once

#include <QWidget>

#include "app/preferences.h"
#include "core/io/export.h"

class QAction;
class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;

namespace rim::app {

class Session;

/// The Export step: what kind of file, made of what, and what will stand in it.
class ExportPanel : public QWidget {
  Q_OBJECT

 public:
  ExportPanel(QAction* exportAction, const Preferences& preferences, QWidget* parent = nullptr);
  void show(const Session& session, Unit unit);

  FileKind kind() const;
  ExportSettings settings() const;
  /// "DXF, 214 × 180 mm", the state line of the step.
  QString stateLine(const Session& session, Unit unit) const;

 signals:
  void settingsChanged();

 private:
  void listForms();

  QComboBox* kind_;
  QComboBox* form_;
  QCheckBox* origin_;
  QLabel* summary_;
  QPushButton* button_;
};

}  // namespace rim::app
