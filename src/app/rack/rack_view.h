// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/rack/rack_geometry.h"
#include "app/rack/rack_painter.h"
#include "app/session/plan_state.h"
#include "app/session/project_session.h"

#include <QAbstractScrollArea>
#include <QVariantAnimation>

namespace inchpeg::app
{

/// The rails and pegs of the study, the same in every lens; in the compare lens the rails become a scale.
class RackView : public QAbstractScrollArea
{
    Q_OBJECT
public:
    RackView(ProjectSession &session, PlanState &plan, QWidget *parent = nullptr);

    /// What stands in place of the rails of a study that has none.
    [[nodiscard]] static QString emptyText();
    [[nodiscard]] const RackModel &model() const { return m_model; }
    /// Own averages of earlier work, drawn while comparing.
    void setAverages(const std::map<ConditionId, OwnAverage> &averages);
    /// Where a peg is drawn, in the viewport's coordinates.
    [[nodiscard]] std::optional<QPointF> pegPosition(PieceId piece) const;
    void finishSliding();
    /// Draws all rails, those scrolled away as well, for a file.
    void paintWhole(QPainter &painter);
    [[nodiscard]] QSize wholeSize() const;

signals:
    void opened(inchpeg::PieceId piece);
    /// A file of the import page was dropped on a peg.
    void fileDropped(int fileIndex, inchpeg::PieceId piece);

protected:
    void paintEvent(QPaintEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void scrollContentsBy(int dx, int dy) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseDoubleClickEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    void focusInEvent(QFocusEvent *event) override;
    void focusOutEvent(QFocusEvent *event) override;
    bool viewportEvent(QEvent *event) override;
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dragMoveEvent(QDragMoveEvent *event) override;
    void dragLeaveEvent(QDragLeaveEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    void rebuild();
    [[nodiscard]] RackSpace space() const;
    void layOut();
    void lensChanged();
    void movePeg(int rails, int pegs);
    void describeSelection();
    void reveal(PieceId piece);
    [[nodiscard]] std::optional<PegHit> find(PieceId piece) const;

    ProjectSession &m_session;
    PlanState &m_plan;
    RackModel m_model;
    std::map<ConditionId, OwnAverage> m_averages;
    RackGeometry m_geometry;
    QVariantAnimation m_slide;
    double m_slid = 1.0;
    std::optional<PieceId> m_dropTarget;
};

/// What a file of the import page carries while it is dragged.
inline constexpr const char *kFileIndexMime = "application/x-inchpeg-file-index";

} // namespace inchpeg::app
