#pragma once

#include <QWidget>
#include <set>

#include "core/drawing/mark.h"
#include "core/refine/step.h"

class QPushButton;
class QTreeWidget;

namespace rim::app {

class Fold;

/// The layers of the outlines: shown or hidden, called and coloured, and what is put on them.
class LayerList : public QWidget {
  Q_OBJECT

 public:
  explicit LayerList(QWidget* parent = nullptr);

  /// The layers of a drawing; those that steps hide are listed, too.
  void show(const Drawing& drawing, const std::vector<refine::Step>& steps);
  /// The outlines that are chosen on the bench.
  void setChosen(std::vector<OutlineMark> chosen);

 signals:
  /// The steps as they become.
  void changed(const std::vector<rim::refine::Step>& steps, const QString& name);
  void refused(const QString& sentence);

 private:
  void fill();
  void follow(std::size_t which, bool show, const QString& name);
  void rename(const Layer& layer, const QString& name);
  void recolour();
  void putChosen(const Layer& layer);
  void putOnNew();
  void lock();
  void moveBy(int by);
  void add(const refine::Step& step, const QString& name);
  const Layer* current() const;
  std::string freeName() const;

  Fold* fold_;
  std::vector<Layer> layers_;
  std::vector<std::size_t> counts_;
  std::set<std::string> hidden_;
  std::set<std::string> locked_;
  std::vector<refine::Step> steps_;
  std::vector<OutlineMark> chosen_;
  bool filling_ = false;
  QTreeWidget* tree_;
  QPushButton* colour_;
  QPushButton* here_;
  QPushButton* new_;
  QPushButton* lock_;
  QPushButton* up_;
  QPushButton* down_;
};

}  // namespace rim::app
