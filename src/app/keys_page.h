#pragma once

#include <QDialog>

namespace rim::app {

class ActionBook;

/// All keys on one page, which stays open beside the work.
class KeysPage : public QDialog {
  Q_OBJECT

 public:
  KeysPage(const ActionBook& book, QWidget* parent);
};

}  // namespace rim::app
