// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/read/marker_panel.h"

#include "app/parts/form_parts.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kFieldFrame = 18; ///< what a field needs beside its text

} // namespace

MarkerPanel::MarkerPanel(MarkerPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_presenter(presenter)
{
    setObjectName(QStringLiteral("markerPanel"));
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 6, 0, 0);
    layout->setSpacing(4);
    layout->addWidget(heading(tr("Markers")));
    layout->addWidget(createQuestion());
    m_grid = new QGridLayout;
    m_grid->setVerticalSpacing(3);
    m_grid->setColumnStretch(0, 1);
    layout->addLayout(m_grid);
    buildRows();
    m_byHand = softLabel({});
    m_byHand->setObjectName(QStringLiteral("markersByHand"));
    m_allBack = button("allBackToAutomatic", tr("All back to automatic"));
    connect(m_allBack, &QPushButton::clicked, &m_presenter, &MarkerPresenter::allBackToAutomatic);
    layout->addWidget(m_byHand);
    layout->addWidget(m_allBack);
    connect(&m_presenter, &MarkerPresenter::changed, this, &MarkerPanel::refresh);
    refresh();
}

/// One row a marker of any test; those that the selected piece's test does not have are hidden.
void MarkerPanel::buildRows()
{
    for (const Reduction *reduction : allReductions()) {
        for (const MarkerKind &kind : reduction->markers) {
            if (m_rows.contains(std::string(kind.name)))
                continue;
            addRow(kind);
            const Row &row = m_rows[std::string(kind.name)];
            const int line = m_grid->rowCount();
            m_grid->addWidget(row.name, line, 0);
            m_grid->addWidget(row.place, line, 1);
            m_grid->addWidget(row.back, line, 2);
        }
    }
}

void MarkerPanel::addRow(const MarkerKind &kind)
{
    const std::string marker(kind.name);
    const QString name = QString::fromUtf8(kind.name);
    Row row;
    row.name = new QLabel(markerLabel(kind));
    row.place = lineEdit("", tr("Place of the marker: %1").arg(markerLabel(kind)));
    row.place->setObjectName(QStringLiteral("place-") + name);
    row.place->setAlignment(Qt::AlignRight);
    row.place->setFixedWidth(row.place->fontMetrics().horizontalAdvance(QStringLiteral("00.0000 %")) +
                             kFieldFrame);
    row.back = button("", tr("auto"));
    row.back->setObjectName(QStringLiteral("back-") + name);
    row.back->setAccessibleName(tr("Set the marker back to automatic: %1").arg(markerLabel(kind)));
    row.back->setProperty("slim", true);
    for (QWidget *part : {static_cast<QWidget *>(row.name), static_cast<QWidget *>(row.place)}) {
        part->setToolTip(markerMeaning(kind));
        part->setWhatsThis(markerMeaning(kind));
    }
    connect(row.place, &QLineEdit::returnPressed, this, [this, marker, edit = row.place] {
        edit->setModified(false);
        if (m_presenter.moveToTyped(marker, edit->text()))
            askForReason();
        else
            refresh();
    });
    connect(row.place, &QLineEdit::editingFinished, this, [this, edit = row.place] {
        if (edit->isModified()) { // left without Enter: nothing was meant
            edit->setModified(false);
            refresh();
        }
    });
    connect(row.back, &QPushButton::clicked, this, [this, marker] { m_presenter.backToAutomatic(marker); });
    m_rows[marker] = row;
}

QWidget *MarkerPanel::createQuestion()
{
    m_question = new QWidget;
    m_question->setObjectName(QStringLiteral("markerQuestion"));
    m_movedText = new QLabel;
    m_movedText->setObjectName(QStringLiteral("movedText"));
    m_movedText->setWordWrap(true);
    m_movedText->setProperty("role", QStringLiteral("heading"));
    m_reason = lineEdit("markerReason", tr("Reason for placing the marker by hand"), tr("why by hand?"));
    auto *keep = button("keepMarker", tr("Keep"), true);
    auto *drop = button("dropMarker", tr("Drop"));
    connect(m_reason, &QLineEdit::returnPressed, this, &MarkerPanel::keep);
    connect(keep, &QPushButton::clicked, this, &MarkerPanel::keep);
    connect(drop, &QPushButton::clicked, this, [this] {
        m_presenter.drop();
        emit finished();
    });
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(keep);
    buttons->addWidget(drop);
    auto *layout = new QVBoxLayout(m_question);
    layout->setContentsMargins(0, 4, 0, 4);
    layout->addWidget(m_movedText);
    layout->addWidget(m_reason);
    layout->addLayout(buttons);
    return m_question;
}

void MarkerPanel::askForReason()
{
    if (m_presenter.moved())
        m_reason->setFocus(Qt::OtherFocusReason);
}

void MarkerPanel::keep()
{
    if (!m_presenter.keep(m_reason->text()))
        return;
    m_reason->clear();
    emit finished();
}

void MarkerPanel::keyPressEvent(QKeyEvent *event)
{
    if (event->key() == Qt::Key_Escape && m_presenter.moved()) {
        m_presenter.drop();
        emit finished();
        return;
    }
    QWidget::keyPressEvent(event);
}

void MarkerPanel::refresh()
{
    const std::vector<MarkerRow> rows = m_presenter.rows();
    setVisible(!rows.empty());
    for (auto &[marker, parts] : m_rows) {
        for (QWidget *part : {static_cast<QWidget *>(parts.name), static_cast<QWidget *>(parts.place),
                              static_cast<QWidget *>(parts.back)})
            part->hide();
    }
    QStringList reasons;
    for (const MarkerRow &row : rows) {
        const Row &parts = m_rows[row.marker];
        const bool byHand = !row.handReason.isEmpty();
        parts.name->setText(byHand ? tr("%1, by hand").arg(row.name) : row.name);
        if (!parts.place->isModified())
            parts.place->setText(row.place);
        // The whole number is seen, whatever unit it is in.
        parts.place->setFixedWidth(
            std::max(parts.place->minimumWidth(),
                     parts.place->fontMetrics().horizontalAdvance(row.place) + kFieldFrame));
        parts.place->setPlaceholderText(tr("not there"));
        parts.place->setEnabled(m_presenter.canPlace());
        parts.back->setToolTip(row.automatic.isEmpty() ? tr("Back to what is found in the record")
                                                       : tr("Back to %1, as found").arg(row.automatic));
        parts.name->show();
        parts.place->show();
        parts.back->setVisible(byHand);
        if (byHand)
            reasons << tr("%1: %2%3")
                           .arg(row.name, row.handReason,
                                row.automatic.isEmpty() ? QString() : tr("; found at %1").arg(row.automatic));
    }
    m_question->setVisible(m_presenter.moved().has_value());
    m_movedText->setText(m_presenter.movedText());
    m_byHand->setText(reasons.join(QLatin1Char('\n')));
    m_byHand->setVisible(!reasons.isEmpty());
    m_allBack->setVisible(reasons.size() > 1);
}

} // namespace inchpeg::app
