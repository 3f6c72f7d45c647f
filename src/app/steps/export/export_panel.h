#pragma once

#include <QWidget>

#include "app/preferences.h"
#include "core/io/export.h"
#include "core/io/receipt.h"

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
  /// Shows what a fresh reading of the file that was written found.
  void showReceipt(const QString& file, std::shared_ptr<const Receipt> receipt, Unit unit);

  /// "DXF, 214 × 180 mm", the state line of the step.
  QString stateLine(const Session& session, Unit unit) const;

 signals:
  void settingsChanged();
  /// A place of the receipt was clicked, mm.
  void placeWanted(rim::Point mm);
  void mendingWanted();
  void told(const QString& sentence);
  void refused(const QString& sentence);

 private:
  void listForms();
  void follow(const QString& link);
  void saveReceipt();

  QComboBox* kind_;
  QComboBox* form_;
  QCheckBox* origin_;
  QLabel* summary_;
  QPushButton* button_;
  QWidget* receiptPart_;
  QLabel* receiptTitle_;
  QLabel* receiptText_;
  QPushButton* saveReceipt_;
  QString receiptOf_;  ///< the file that it is about
  std::shared_ptr<const Receipt> receipt_;
};

}  // namespace rim::app
