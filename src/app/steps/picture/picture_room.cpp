#include "app/steps/picture/picture_room.h"

#include <QMenu>

#include "app/actions.h"
#include "app/bench/bench.h"
#include "app/session.h"
#include "app/steps/picture/picture_panel.h"
#include "app/steps/rooms.h"

namespace rim::app {

PictureActions::PictureActions(ActionBook& book) {
  const auto text = [](const char* source) { return PictureRoom::tr(source); };
  traceable = book.add(Step::Picture, text("&Make it traceable"),
                       text("Straighten, even the light, calm noise: what the picture needs"), onKey("M"));
  book.note(Step::Picture, text("Space, arrow keys"),
            text("With frame or corners: choose the next corner, move it by a pixel"));
  book.note(Step::Picture, text("Ctrl+arrow keys"), text("The same by ten pixels"));
}

PictureRoom::PictureRoom(const Workplace& at)
    : StepRoom(at, Step::Picture, tr("&Picture"), tr("The picture that is traced")),
      actions_(at.book),
      panel_(new PicturePanel(at.session, at.actions.open, at.actions.paste)) {
  connect(actions_.traceable, &QAction::triggered, &at_.session, &Session::makeTraceable);
  connect(panel_, &PicturePanel::toolChanged, &at_.bench, &Bench::setTool);
  connect(panel_, &PicturePanel::refused, &at_.exchange, &Exchange::warned);
}

QWidget* PictureRoom::panel() { return panel_; }

void PictureRoom::fillMenu(QMenu& menu) { menu.addAction(actions_.traceable); }

CardLine PictureRoom::cardLine() const {
  if (at_.session.job().drawing) return {tr("a drawing instead"), true};
  return {PicturePanel::stateLine(at_.session), at_.session.hasPicture()};
}

void PictureRoom::show() {
  panel_->show();
  allow(actions_.traceable, at_.session.hasPicture(), needsPicture());
}

bool PictureRoom::putToolAway() { return panel_->putToolsAway(); }

void PictureRoom::follow() { panel_->putToolsAway(); }

}  // namespace rim::app
