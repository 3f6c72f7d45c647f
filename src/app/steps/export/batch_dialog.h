#pragma once

#include <QDialog>
#include <QStringList>

#include "app/errand.h"
#include "core/job/job.h"

class QLabel;
class QLineEdit;
class QProgressBar;
class QPushButton;
class QTreeWidget;

namespace rim::app {

/// Does to other pictures what a job does to its own: a table that fills while they are worked through.
class BatchDialog : public QDialog {
  Q_OBJECT

 public:
  BatchDialog(job::Recipe recipe, job::FileWish wish, const QString& folder, QWidget* parent = nullptr);
  ~BatchDialog() override;

  void setPictures(const QStringList& files);
  void setFolder(const QString& folder);
  void start();
  bool running() const { return working_.running(); }

 private:
  void askForPictures();
  void askForFolder();
  void stop();
  void showRow(int row, const QString& state, const QString& outlines, const QString& receipt, bool trouble);
  void showAllowed();

  job::Recipe recipe_;
  job::FileWish wish_;
  QStringList pictures_;
  QTreeWidget* table_;
  QLineEdit* folder_;
  QLabel* summary_;
  QProgressBar* progress_;
  QPushButton* add_;
  QPushButton* start_;
  QPushButton* stop_;
  int done_ = 0;
  int clean_ = 0;
  Errand working_;
};

}  // namespace rim::app
