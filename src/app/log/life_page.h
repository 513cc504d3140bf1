// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/plan_state.h"

#include <QWidget>

class QTextBrowser;

namespace inchpeg::app
{

/// The life of the selected piece on one page, and every change of its logged values.
class LifePage : public QWidget
{
    Q_OBJECT
public:
    LifePage(ProjectSession &session, PlanState &plan, QWidget *parent = nullptr);
    void refresh();

private:
    [[nodiscard]] QString lifeHtml(const Study &study, const Piece &piece);
    [[nodiscard]] QString historyHtml(const Study &study, const Piece &piece);
    [[nodiscard]] std::string verdictOn(const Study &study, const Piece &piece) const;

    ProjectSession &m_session;
    PlanState &m_plan;
    QTextBrowser *m_text = nullptr;
};

} // namespace inchpeg::app
